package marvek.core.ways;

import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.lap.Ground;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.survey.Edge;
import marvek.core.survey.Edges;
import marvek.core.survey.Things;
import marvek.core.technique.SchoolLine;

/**
 * How wide the line goes, how it comes over to a corner's side, and what it uses beyond the edge.
 */
final class LineWays {
  // Metres that a line keeps off the outer edge from which on that is a choice.
  private static final double INSIDE = 0.4;
  // Metres across, and metres of straight besides those to cross it, from which on that is one.
  private static final double ACROSS = 2;
  private static final double STRAIGHT = 80;
  // Radians that a straight may turn.
  private static final double STRAIGHT_ON = 0.12;
  // Metres before a corner and after it in which what lies beyond the edge is its own.
  private static final double NEAR = 80;

  private final ComputedLap computed;
  private final Things things;
  private final int c;
  private final Answers answers;

  LineWays(ComputedLap computed, Things things, int c, Answers answers) {
    this.computed = computed;
    this.things = things;
    this.c = c;
    this.answers = answers;
  }

  /** Whether the lap keeps off the outer edge where it comes nearest to it. */
  boolean keepsOff() {
    return answers.outermost().stream().anyMatch(o -> o.off() > INSIDE);
  }

  /** Whether there is a straight before the corner that leads over to its other side. */
  boolean crosses() {
    if (computed.corners().size() < 2) {
      return false;
    }
    SchoolLine.Crossing way =
        SchoolLine.crossing(
            computed.road(),
            computed.corners(),
            computed.lines(),
            c,
            computed.lap().speed(),
            computed.path().offset());
    return Math.abs(way.across()) > ACROSS
        && way.metres() > STRAIGHT + way.atOnce()
        && way.turns() < STRAIGHT_ON;
  }

  /** Whether there is ground beyond the edge near the corner that may be used and is not yet. */
  boolean beyond() {
    Corner corner = computed.corners().get(c);
    Centreline road = computed.road();
    double first = road.wrap(corner.entry() - NEAR);
    double reach = road.ahead(corner.entry(), corner.exit()) + 2 * NEAR;
    Ground.Lie lie = computed.ground().lie();
    return Edges.all(road, computed.corners(), things, computed.vehicle()).stream()
        .filter(e -> !e.kerb() && e.usable())
        .filter(e -> road.ahead(first, e.from()) <= reach || road.ahead(first, e.to()) <= reach)
        .anyMatch(e -> lie == null || closed(e.left() ? lie.keepLeft() : lie.keepRight(), e));
  }

  private boolean closed(double[] keep, Edge edge) {
    double middle = edge.from() + computed.road().ahead(edge.from(), edge.to()) / 2;
    return keep[computed.road().index(computed.road().wrap(middle))] >= 0;
  }

  /**
   * With the time that its line takes as the lap drives it, against the present one: places told to
   * half a metre, and a throttle opened in stages on one of two lines, would tell more than the two
   * differ by.
   */
  Choices.Outcome along(
      Choices.Outcome then, CornerEntry entry, Choices.Outcome now, CornerEntry present) {
    Double toNext = now.toNext();
    Double corner = now.cornerTime();
    if (then.toNext() == null || toNext == null || corner == null) {
      return then;
    }
    double longer = seconds(entry) - seconds(present);
    return ChoicesOutcomeBuilder.builder(then)
        .toNext(toNext + longer)
        .cornerTime(corner + longer)
        .build();
  }

  private double seconds(CornerEntry entry) {
    return computed.along(answers.line(entry).path()).lap().lapTime();
  }
}
