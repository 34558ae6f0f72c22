package marvek.core.session;

import java.util.ArrayList;
import java.util.List;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.PointKind;
import marvek.core.review.Hazards;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.Sureness;
import marvek.core.survey.Things;
import marvek.core.words.Sentence;
import marvek.core.words.Speech;

/**
 * A corner of a session's plan.
 *
 * @param corner id
 * @param called as the driver calls it
 * @param apex station of it, m
 * @param words of the corner as it is to be driven
 * @param today what differs from the reference
 * @param escape what is there when it goes wrong
 * @param unsure points that are not sure or not proved
 */
public record PlannedLine(
    String corner,
    String called,
    double apex,
    Sentence.Words words,
    Today.CornerToday today,
    Said escape,
    boolean blind,
    boolean shortRunOff,
    List<PointKind> unsure) {
  public PlannedLine {
    unsure = List.copyOf(unsure);
  }

  /**
   * All of them, in driving order.
   *
   * @param words of the corners as they are to be driven, in the same order
   */
  public static List<PlannedLine> of(
      OnTheDay day, Things things, List<Sentence.Words> words, Speech speech) {
    List<PlannedLine> out = new ArrayList<>();
    List<CornerEntry> entries = day.entries();
    for (int i = 0; i < entries.size(); i++) {
      CornerEntry e = entries.get(i);
      Hazards hazards = Hazards.of(day.then(), things, e);
      Corner corner = day.then().corners().get(day.then().indexOf(e.corner()));
      out.add(
          new PlannedLine(
              e.corner(),
              speech.corner(corner),
              corner.apex(),
              words.get(i),
              day.today().corners().get(i),
              hazards.escape(),
              hazards.blind(),
              hazards.shortRunOff(),
              e.points().stream().filter(PlannedLine::unsure).map(CornerPoint::kind).toList()));
    }
    return List.copyOf(out);
  }

  private static boolean unsure(CornerPoint p) {
    Sureness sure = p.sure();
    return sure != null && sure.standsOut();
  }

  /**
   * Corners in which nothing later or faster is to be tried: there is no room when it goes wrong.
   */
  static List<Said> notToday(List<PlannedLine> lines) {
    List<Said> out = new ArrayList<>();
    for (PlannedLine l : lines) {
      if (l.shortRunOff()) {
        out.add(Said.of("avoid.room", Value.own(l.called())));
      } else if (l.blind() && !l.unsure().isEmpty()) {
        out.add(Said.of("avoid.blind", Value.own(l.called())));
      }
    }
    return List.copyOf(out);
  }
}
