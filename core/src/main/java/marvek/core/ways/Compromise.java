package marvek.core.ways;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import marvek.core.circuit.Corner;
import marvek.core.circuit.Loop;
import marvek.core.lap.LapSimulator;
import marvek.core.lap.LapTrace;
import marvek.core.lap.Path;
import marvek.core.plan.ComputedLap;
import marvek.core.survey.Things;
import marvek.core.technique.School;
import marvek.core.technique.SchoolLine;
import org.jspecify.annotations.Nullable;

/**
 * Linked corners: total time against how much of one of them is given away.
 *
 * @param corners ids of the complex
 * @param given ids of the corners given away
 * @param steps total and parts for each share given, from nothing to most
 * @param best the quickest within what is allowed
 */
public record Compromise(List<String> corners, List<String> given, List<Step> steps, Step best) {
  /** All of it. */
  public static final double MOST = 1;

  private static final double GRAIN = 0.1;

  public Compromise {
    corners = List.copyOf(corners);
    given = List.copyOf(given);
    steps = List.copyOf(steps);
  }

  /**
   * One way of sharing.
   *
   * @param given how much of the corner is given away, 0 to 1
   * @param metres by which the line moves across the road there, against giving nothing
   * @param seconds from the corner before to the corner after
   * @param lost of them in the corner given away, against giving nothing
   * @param won in the others, against giving nothing
   * @param exitSpeed m/s at the exit of the last corner
   */
  public record Step(
      double given, double metres, double seconds, double lost, double won, double exitSpeed) {}

  /**
   * The picture for the complex of a corner.
   *
   * @param c place of a corner of the complex in the list
   * @param school which of them is given away
   * @param most share that the driver allows, 0 to 1
   * @throws IllegalArgumentException if the corner belongs to no complex
   */
  public static Compromise of(
      ComputedLap computed, Things things, int c, School school, double most) {
    List<Integer> given = SchoolLine.givenAway(computed.corners(), c, school);
    if (given.isEmpty()) {
      throw new IllegalArgumentException("this corner is not linked to another");
    }
    int[] ends = SchoolLine.complex(computed.corners(), c);
    List<String> ids = new ArrayList<>();
    for (int k = ends[0]; k <= ends[1]; k++) {
      ids.add(computed.corners().get(k).id());
    }
    Driven nothing = new Driven(computed, things, c, school, 0);
    List<Step> steps = new ArrayList<>();
    for (int i = 0; i * GRAIN <= Math.max(0, Math.min(MOST, most)) + 1e-9; i++) {
      steps.add(new Driven(computed, things, c, school, i * GRAIN).against(nothing));
    }
    return new Compromise(
        ids,
        given.stream().map(k -> computed.corners().get(k).id()).toList(),
        steps,
        steps.stream().min(Comparator.comparingDouble(Step::seconds)).orElseThrow());
  }

  /** Seconds over the complex as a corner of it is planned, or on the lap's own line. */
  static double seconds(
      ComputedLap computed, Things things, int c, @Nullable School school, double given) {
    return school == null
        ? new Driven(computed, computed.path(), c, List.of(), 0).seconds
        : new Driven(computed, things, c, school, given).seconds;
  }

  /** The lap with one way of sharing. */
  private static final class Driven {
    private final ComputedLap computed;
    private final Path path;
    private final LapTrace lap;
    private final List<Integer> given;
    private final double share;
    private final int last;
    final double seconds;

    Driven(ComputedLap computed, Things things, int c, School school, double share) {
      this(
          computed,
          computed.laid(things, c, List.of(school), share).path(),
          c,
          SchoolLine.givenAway(computed.corners(), c, school),
          share);
    }

    Driven(ComputedLap computed, Path path, int c, List<Integer> given, double share) {
      this.computed = computed;
      this.path = path;
      this.given = given;
      this.share = share;
      lap = LapSimulator.lap(path, computed.limits(), computed.lap().boostBelow());
      int count = computed.corners().size();
      int[] ends = SchoolLine.complex(computed.corners(), c);
      last = ends[1];
      double from = computed.corners().get((ends[0] + count - 1) % count).apex();
      double to = computed.corners().get((ends[1] + 1) % count).apexes().get(0);
      seconds = between(from, to);
    }

    Step against(Driven nothing) {
      double lost = 0;
      double metres = 0;
      for (int k : given) {
        Corner corner = computed.corners().get(k);
        double from = corner.entry() - 40;
        lost += between(from, corner.exit()) - nothing.between(from, corner.exit());
        Loop loop = computed.road().loop();
        int head = computed.road().index(corner.entry());
        int span =
            (int) (computed.road().ahead(corner.entry(), corner.exit()) / computed.road().step());
        for (int j = 0; j <= span; j++) {
          int i = loop.at(head + j);
          metres = Math.max(metres, Math.abs(path.offset()[i] - nothing.path.offset()[i]));
        }
      }
      double exit = lap.speed()[computed.road().index(computed.corners().get(last).exit())];
      return new Step(share, metres, seconds, lost, nothing.seconds - seconds + lost, exit);
    }

    private double between(double from, double to) {
      double a = lap.time()[computed.road().index(from)];
      double b = lap.time()[computed.road().index(to)];
      return b >= a ? b - a : b - a + lap.lapTime();
    }
  }
}
