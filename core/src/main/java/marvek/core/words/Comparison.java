package marvek.core.words;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.Detail;
import marvek.core.entry.OwnPace;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.RoadUse;
import marvek.core.entry.Score;
import marvek.core.entry.Variant;
import marvek.core.lap.Driving;
import marvek.core.line.Gate;
import marvek.core.marker.Tie;
import marvek.core.score.Action;
import marvek.core.score.Cue;
import marvek.core.score.Sureness;
import marvek.core.technique.School;
import marvek.core.units.Display;
import org.jspecify.annotations.Nullable;

/** What differs between two states of a reference, in words. */
public final class Comparison {
  private static final double SAME_PLACE = 0.25;

  private Comparison() {}

  /**
   * One difference.
   *
   * @param corner id of the corner, or empty for the whole reference
   * @param kind the point that moved, or null for other things
   * @param words "T5 braking 6 m later, from the 100 board + 14 m to + 8 m"
   */
  public record Difference(String corner, @Nullable PointKind kind, String words) {}

  /** Differences in driving order. Entries of corners that only one side has are said as such. */
  public static List<Difference> between(
      List<Corner> corners,
      double lapLength,
      ReferenceContent before,
      ReferenceContent after,
      Display units) {
    List<Difference> out = new ArrayList<>();
    for (Corner corner : corners) {
      CornerEntry a = entry(before, corner.id());
      CornerEntry b = entry(after, corner.id());
      String name = "T" + corner.number();
      if (a == null && b == null) {
        continue;
      }
      if (a == null || b == null) {
        out.add(new Difference(corner.id(), null, name + (a == null ? " added" : " left out")));
        continue;
      }
      compare(out, name, lapLength, a, b, units);
    }
    pace(out, before, after);
    use(out, before, after);
    variants(out, before, after);
    return List.copyOf(out);
  }

  private static void pace(List<Difference> out, ReferenceContent before, ReferenceContent after) {
    OwnPace was = before.pace();
    OwnPace is = after.pace();
    if (Objects.equals(was, is)) {
      return;
    }
    Driving now = OwnPace.of(is);
    Driving then = OwnPace.of(was);
    out.add(
        new Difference(
            "",
            null,
            now.equals(then)
                ? "Own pace differs in other corners"
                : String.format(
                    Locale.ROOT,
                    "Own pace: braking %s, turning %s, traction %s, margin %.2f s instead of %.2f s",
                    share(then.braking(), now.braking()),
                    share(then.turning(), now.turning()),
                    share(then.traction(), now.traction()),
                    now.margin(),
                    then.margin())));
  }

  private static void use(List<Difference> out, ReferenceContent before, ReferenceContent after) {
    RoadUse was = RoadUse.of(before.use());
    RoadUse is = RoadUse.of(after.use());
    long opened = is.opened().stream().filter(e -> !was.opened().contains(e)).count();
    long shut = was.opened().stream().filter(e -> !is.opened().contains(e)).count();
    if (opened + shut > 0) {
      out.add(
          new Difference(
              "",
              null,
              String.format(Locale.ROOT, "Edges of the road: %d opened, %d shut", opened, shut)));
    }
    for (Gate g : is.gates()) {
      if (!was.gates().contains(g)) {
        out.add(
            new Difference(
                "",
                null,
                String.format(
                    Locale.ROOT,
                    "The line passes %.1f m from the %s edge at %.0f m",
                    g.metres(),
                    g.left() ? "left" : "right",
                    g.station())));
      }
    }
    long gone =
        was.gates().stream()
            .filter(g -> is.gates().stream().noneMatch(h -> h.id().equals(g.id())))
            .count();
    if (gone > 0) {
      out.add(
          new Difference(
              "", null, String.format(Locale.ROOT, "Places to pass left out: %d", gone)));
    }
  }

  private static String share(double was, double is) {
    return was == is
        ? String.format(Locale.ROOT, "%.0f %%", 100 * is)
        : String.format(Locale.ROOT, "%.0f instead of %.0f %%", 100 * is, 100 * was);
  }

  private static void variants(
      List<Difference> out, ReferenceContent before, ReferenceContent after) {
    for (Variant v : after.variants()) {
      Variant was =
          before.variants().stream().filter(x -> x.id().equals(v.id())).findFirst().orElse(null);
      if (was == null) {
        out.add(new Difference("", null, "Variant \"" + v.called() + "\" added"));
      } else if (!was.equals(v)) {
        out.add(new Difference("", null, "Variant \"" + v.called() + "\" changed"));
      }
    }
    for (Variant v : before.variants()) {
      if (after.variants().stream().noneMatch(x -> x.id().equals(v.id()))) {
        out.add(new Difference("", null, "Variant \"" + v.called() + "\" left out"));
      }
    }
  }

  /** Actions added, left out or otherwise; each named by its id, not by its kind. */
  private static void actions(
      List<Difference> out,
      String name,
      double lapLength,
      CornerEntry a,
      CornerEntry b,
      Display units) {
    List<Action> before = Score.of(lapLength, a);
    List<Action> after = Score.of(lapLength, b);
    Speaker speaker = Speaker.of(new Speech(units, Speech.Call.NUMBERS).on(lapLength));
    for (Action is : after) {
      Action was = before.stream().filter(x -> x.id().equals(is.id())).findFirst().orElse(null);
      boolean own = Score.point(is.id()).isEmpty();
      if (was == null && own) {
        out.add(new Difference(a.corner(), null, name + " " + speaker.say(is.line(after))));
      } else if (was != null && (own ? !was.equals(is) : written(a, b, is.id()))) {
        out.add(
            new Difference(
                a.corner(),
                null,
                name
                    + " "
                    + speaker.say(is.line(after))
                    + ", instead of: "
                    + speaker.say(was.line(before))));
      }
    }
    for (Action was : before) {
      boolean gone = after.stream().noneMatch(x -> x.id().equals(was.id()));
      if (gone && Score.point(was.id()).isEmpty()) {
        out.add(
            new Difference(
                a.corner(), null, name + " no longer: " + speaker.say(was.line(before))));
      }
    }
  }

  /** Whether more is written of a point than before, or something else. */
  private static boolean written(CornerEntry a, CornerEntry b, String id) {
    PointKind kind = Score.point(id).orElseThrow();
    return !said(a, kind).equals(said(b, kind));
  }

  /** What is written of a point beside its place, which is compared as a point. */
  private static Optional<Action> said(CornerEntry e, PointKind kind) {
    return e.point(kind)
        .flatMap(p -> Optional.ofNullable(p.play()))
        .map(p -> p.at(0).found(stripped(p.cue())));
  }

  private static @Nullable Cue stripped(@Nullable Cue cue) {
    return cue == null ? null : cue.with(Math.round(cue.number() * 10) / 10.0);
  }

  private static void compare(
      List<Difference> out,
      String name,
      double lapLength,
      CornerEntry a,
      CornerEntry b,
      Display units) {
    actions(out, name, lapLength, a, b, units);
    String id = a.corner();
    if (a.slowing() != b.slowing()) {
      out.add(
          new Difference(
              id, null, name + " " + word(b.slowing()) + " instead of " + word(a.slowing())));
    }
    for (PointKind kind : PointKind.values()) {
      CornerPoint p = a.point(kind).orElse(null);
      CornerPoint q = b.point(kind).orElse(null);
      if (p == null && q == null) {
        continue;
      }
      if (p == null || q == null) {
        out.add(
            new Difference(
                id, kind, name + " " + kind.word() + (p == null ? " added" : " left out")));
        continue;
      }
      double moved = Math.IEEEremainder(q.station() - p.station(), lapLength);
      if (Math.abs(moved) >= SAME_PLACE) {
        out.add(
            new Difference(
                id,
                kind,
                name
                    + " "
                    + kind.word()
                    + " "
                    + units.length(moved)
                    + (moved > 0 ? " later" : " sooner")
                    + ", from "
                    + place(p, units)
                    + " to "
                    + placeAfter(p, q, units)));
      }
    }
    if (a.gear() != b.gear()) {
      out.add(new Difference(id, null, name + " gear " + b.gear() + " instead of " + a.gear()));
    }
    share(out, id, name + " first effort", a.firstEffort(), b.firstEffort());
    share(out, id, name + " first throttle", a.firstThrottle(), b.firstThrottle());
    if (a.apexType() != b.apexType()) {
      out.add(
          new Difference(
              id,
              PointKind.APEX,
              name + " apex " + word(b.apexType()) + " instead of " + word(a.apexType())));
    }
    beyondPoints(out, name, a, b);
    if (!Objects.equals(a.note(), b.note())) {
      out.add(
          new Difference(
              id,
              null,
              name + (b.note().isBlank() ? " note removed" : " note: “" + b.note().strip() + "”")));
    }
  }

  private static void beyondPoints(
      List<Difference> out, String name, CornerEntry a, CornerEntry b) {
    String id = a.corner();
    for (School s : b.schools()) {
      if (!a.schools().contains(s)) {
        out.add(new Difference(id, null, name + " " + s.question().words() + ": " + s.words()));
      }
    }
    for (School s : a.schools()) {
      if (School.chosen(b.schools(), s.question()).isEmpty()) {
        out.add(new Difference(id, null, name + " " + s.question().words() + " left open again"));
      }
    }
    if (a.schools().equals(b.schools()) && Math.abs(a.givenAway() - b.givenAway()) > 0.004) {
      share(out, id, name + " given away", a.givenAway(), b.givenAway());
    }
    if (Math.abs(a.apexOff() - b.apexOff()) > 0.02) {
      out.add(
          new Difference(
              id,
              PointKind.APEX,
              String.format(
                  Locale.ROOT,
                  "%s apex %.1f m %s the inside",
                  name,
                  Math.abs(b.apexOff() - a.apexOff()),
                  b.apexOff() > a.apexOff() ? "further off" : "closer to")));
    }
    if (!Objects.equals(a.pedals(), b.pedals())) {
      out.add(new Difference(id, null, name + " another shape of the pedals"));
    }
    for (Detail d : Detail.values()) {
      if (!a.detail(d).equals(b.detail(d))) {
        out.add(
            new Difference(
                id,
                null,
                name
                    + " "
                    + d.words()
                    + (b.detail(d).isBlank() ? " removed" : ": “" + b.detail(d).strip() + "”")));
      }
    }
    if (!a.kerbs().equals(b.kerbs())) {
      out.add(new Difference(id, null, name + " other use of the kerbs"));
    }
    for (PointKind kind : PointKind.values()) {
      Sureness was = a.point(kind).map(CornerPoint::sure).orElse(null);
      Sureness is = b.point(kind).map(CornerPoint::sure).orElse(null);
      if (was != is && is != null && a.point(kind).isPresent()) {
        out.add(new Difference(id, kind, name + " " + kind.word() + ": " + is.words()));
      }
    }
    if (!Objects.equals(a.priority(), b.priority())) {
      Integer place = b.priority();
      out.add(
          new Difference(
              id,
              null,
              name + (place == null ? " placed as computed" : " placed number " + place)));
    }
    if (!Objects.equals(a.wording(), b.wording())) {
      out.add(new Difference(id, null, name + " other words"));
    }
  }

  private static void share(
      List<Difference> out, String id, String what, double before, double after) {
    if (Math.abs(before - after) > 0.004) {
      out.add(
          new Difference(
              id,
              null,
              what
                  + " "
                  + Math.round(after * 100)
                  + " % instead of "
                  + Math.round(before * 100)
                  + " %"));
    }
  }

  private static String place(CornerPoint point, Display units) {
    Tie tie = point.tie();
    return tie == null ? units.length(point.station()) : "the " + Sentence.brief(tie, units);
  }

  /** The second place, without its landmark where that is the first's. */
  private static String placeAfter(CornerPoint first, CornerPoint second, Display units) {
    Tie a = first.tie();
    Tie b = second.tie();
    if (a != null && b != null && a.landmark().equals(b.landmark()) && Math.round(b.past()) != 0) {
      return (b.past() > 0 ? "+ " : "− ") + units.length(b.past());
    }
    return place(second, units);
  }

  private static String word(Enum<?> value) {
    return value.name().toLowerCase(Locale.ROOT);
  }

  private static @Nullable CornerEntry entry(ReferenceContent content, String corner) {
    return content.corners().stream()
        .filter(e -> e.corner().equals(corner))
        .findFirst()
        .orElse(null);
  }
}
