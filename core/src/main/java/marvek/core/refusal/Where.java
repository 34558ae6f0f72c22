package marvek.core.refusal;

import marvek.core.said.Said;
import marvek.core.said.Value;

/** Places in what was given, as whoever made it would look for them; all count from one. */
public final class Where {
  private Where() {}

  /** A field or thing by its own name. */
  public static Said field(String name) {
    return Said.of("where.field", Value.own(name));
  }

  /** A row, from 1. */
  public static Said row(long number) {
    return Said.of("where.row", Value.figure(number, 0));
  }

  /** A cell, both from 1. */
  public static Said cell(long row, long column) {
    return cell(row, String.valueOf(column));
  }

  /** A cell, by its row from 1 and the head of its column. */
  public static Said cell(long row, String column) {
    return Said.of("where.cell", Value.figure(row, 0), Value.own(column));
  }

  /** A line, from 1. */
  public static Said line(long number) {
    return Said.of("where.line", Value.figure(number, 0));
  }

  /** A place in a line, both from 1. */
  public static Said line(long number, long column) {
    return Said.of("where.character", Value.figure(number, 0), Value.figure(column, 0));
  }

  /** A column by its number and what its header reads. */
  public static Said column(long number, String header) {
    return Said.of("where.column", Value.figure(number, 0), Value.own(header));
  }

  /** A field of a feature, the feature from 1. */
  public static Said feature(long number, String field) {
    return Said.of("where.feature", Value.figure(number, 0), Value.own(field));
  }

  /** A waypoint, from 1. */
  public static Said waypoint(long number) {
    return Said.of("where.waypoint", Value.figure(number, 0));
  }

  /** A field within a place. */
  public static Said in(Said place, String field) {
    return Said.of("where.in", place.in(), Value.own(field));
  }

  /** A byte, from 1. */
  public static Said byteOf(long number) {
    return Said.of("where.byte", Value.figure(number, 0));
  }

  /** A point, from 1. */
  public static Said point(long number) {
    return Said.of("where.of", new Value.Choice("point"), Value.figure(number, 0));
  }

  /** A track point, from 1, and its line. */
  public static Said trackPoint(long number, long line) {
    return Said.of("where.track_point", Value.figure(number, 0), Value.figure(line, 0));
  }

  /** A corner by its number. */
  public static Said corner(String number) {
    return Said.of("where.corner", Value.own(number));
  }
}
