package marvek.core.review;

import java.util.ArrayList;
import java.util.List;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.marker.MarkerJudge;
import marvek.core.plan.ComputedLap;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.survey.Things;

/** What the light of an hour does to the markers of a reference. */
public final class Light {
  private Light() {}

  /**
   * A marker that the light changes.
   *
   * @param spoken the marker as it is called
   * @param why what the light does
   */
  public record Changed(String corner, PointKind kind, String spoken, Said why) {
    /** The same in a sentence. */
    public Said words(String hour) {
      return Said.of(
          "variant.light", Value.own(hour), kind.said().in(), Value.own(spoken), why.in());
    }
  }

  /** So many markers in the dark are told one by one. */
  private static final int FEW = 3;

  /** What is said of them: one sentence each, but of the dark one for all. */
  public static List<Said> words(List<Changed> changed, String hour) {
    long dark = changed.stream().filter(Light::dark).count();
    List<Said> out = new ArrayList<>();
    if (dark > FEW) {
      out.add(Said.of("variant.dark", Value.own(hour), Value.count(dark)));
    }
    changed.stream().filter(c -> dark <= FEW || !dark(c)).forEach(c -> out.add(c.words(hour)));
    return out;
  }

  private static boolean dark(Changed changed) {
    return changed.why().key().equals("marker.dark");
  }

  /**
   * Markers of entries that the light changes; none where nobody has said where the road lies.
   *
   * @param view from where and when the driver looks
   */
  public static List<Changed> of(
      ComputedLap computed, Things things, List<CornerEntry> entries, MarkerJudge.View view) {
    List<Changed> out = new ArrayList<>();
    if (view.place() == null) {
      return out;
    }
    MarkerReview review = MarkerReview.of(computed, new ReferenceContent(entries), things, view);
    for (MarkerReview.MarkedPoint p : review.points()) {
      MarkerJudge.Judgement judgement = p.judgement();
      if (judgement != null) {
        judgement.reasons().stream()
            .filter(r -> r.about() == MarkerJudge.About.LIGHT)
            .forEach(r -> out.add(new Changed(p.corner(), p.kind(), p.spoken(), r.words())));
      }
    }
    return out;
  }
}
