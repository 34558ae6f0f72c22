package marvek.core.words;

import java.util.ArrayList;
import java.util.List;
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
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.Action;
import marvek.core.score.Cue;
import marvek.core.score.Sureness;
import marvek.core.technique.School;
import marvek.core.units.Display;
import org.jspecify.annotations.Nullable;

/** What differs between two states of a reference, in words. */
public final class Comparison {
  private static final double SAME_PLACE = 0.25;
  private static final double SAME_SHARE = 0.004;

  private final Speaker speaker;
  private final Display units;
  private final double lapLength;
  private final List<Difference> out = new ArrayList<>();

  private Comparison(Speech speech, double lapLength) {
    this.speaker = Speaker.of(speech.on(lapLength));
    this.units = speech.units();
    this.lapLength = lapLength;
  }

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
      Speech speech) {
    Comparison all = new Comparison(speech, lapLength);
    for (Corner corner : corners) {
      CornerEntry a = entry(before, corner.id());
      CornerEntry b = entry(after, corner.id());
      if (a != null && b != null) {
        all.new Of(corner, a, b).compare();
      } else if (a != null || b != null) {
        Said what = Said.of(a == null ? "compare.corner.added" : "compare.corner.gone");
        all.out.add(new Difference(corner.id(), null, all.speaker.say(inCorner(corner, what))));
      }
    }
    all.pace(before, after);
    all.use(before, after);
    all.variants(before, after);
    return List.copyOf(all.out);
  }

  private static Said inCorner(Corner corner, Said what) {
    return Said.of("compare.corner.what", Value.own(corner.number()), what.in());
  }

  private void whole(String key, Value... values) {
    out.add(new Difference("", null, speaker.say(Said.of(key, values))));
  }

  private void pace(ReferenceContent before, ReferenceContent after) {
    OwnPace was = before.pace();
    OwnPace is = after.pace();
    if (Objects.equals(was, is)) {
      return;
    }
    Driving now = OwnPace.of(is);
    Driving then = OwnPace.of(was);
    if (now.equals(then)) {
      whole("compare.pace.corners");
      return;
    }
    whole(
        "compare.pace.shares",
        share(then.braking(), now.braking()),
        share(then.turning(), now.turning()),
        share(then.traction(), now.traction()),
        Value.figure(now.margin(), 2),
        Value.figure(then.margin(), 2));
  }

  private static Value share(double was, double is) {
    return was == is
        ? Said.of("compare.share.same", Value.percent(is)).in()
        : Said.of("compare.share.other", Value.percent(is), Value.percent(was)).in();
  }

  private void use(ReferenceContent before, ReferenceContent after) {
    RoadUse was = RoadUse.of(before.use());
    RoadUse is = RoadUse.of(after.use());
    long opened = is.opened().stream().filter(e -> !was.opened().contains(e)).count();
    long shut = was.opened().stream().filter(e -> !is.opened().contains(e)).count();
    if (opened + shut > 0) {
      whole("compare.edges", Value.count(opened), Value.count(shut));
    }
    for (Gate g : is.gates()) {
      if (!was.gates().contains(g)) {
        whole("compare.gate", g.said().in());
      }
    }
    long gone =
        was.gates().stream()
            .filter(g -> is.gates().stream().noneMatch(h -> h.id().equals(g.id())))
            .count();
    if (gone > 0) {
      whole("compare.gates", Value.count(gone));
    }
  }

  private void variants(ReferenceContent before, ReferenceContent after) {
    for (Variant v : after.variants()) {
      Variant was =
          before.variants().stream().filter(x -> x.id().equals(v.id())).findFirst().orElse(null);
      if (was == null) {
        whole("compare.variant.added", v.called().in());
      } else if (!was.equals(v)) {
        whole("compare.variant.changed", v.called().in());
      }
    }
    for (Variant v : before.variants()) {
      if (after.variants().stream().noneMatch(x -> x.id().equals(v.id()))) {
        whole("compare.variant.gone", v.called().in());
      }
    }
  }

  /** One corner that both have. */
  private final class Of {
    private final Corner corner;
    private final CornerEntry a;
    private final CornerEntry b;

    Of(Corner corner, CornerEntry a, CornerEntry b) {
      this.corner = corner;
      this.a = a;
      this.b = b;
    }

    private void say(@Nullable PointKind kind, Said what) {
      out.add(new Difference(corner.id(), kind, speaker.say(inCorner(corner, what))));
    }

    private void say(String key, Value... values) {
      say(null, Said.of(key, values));
    }

    void compare() {
      actions();
      if (a.slowing() != b.slowing()) {
        say(
            "compare.instead",
            Said.of("slowing." + b.slowing()).in(),
            Said.of("slowing." + a.slowing()).in());
      }
      for (PointKind kind : PointKind.values()) {
        point(kind);
      }
      if (a.gear() != b.gear()) {
        say("compare.gear", Value.count(b.gear()), Value.count(a.gear()));
      }
      share("compare.effort", a.firstEffort(), b.firstEffort());
      share("compare.throttle", a.firstThrottle(), b.firstThrottle());
      if (a.apexType() != b.apexType()) {
        say(
            PointKind.APEX,
            Said.of("compare.apex", Value.choice(b.apexType()), Value.choice(a.apexType())));
      }
      beyondPoints();
      if (!Objects.equals(a.note(), b.note())) {
        written(Said.of("compare.note"), b.note());
      }
    }

    /** Actions added, left out or otherwise; each named by its id, not by its kind. */
    private void actions() {
      List<Action> before = Score.of(lapLength, a);
      List<Action> after = Score.of(lapLength, b);
      for (Action is : after) {
        Action was = before.stream().filter(x -> x.id().equals(is.id())).findFirst().orElse(null);
        boolean own = Score.point(is.id()).isEmpty();
        if (was == null && own) {
          say(null, is.line(after));
        } else if (was != null && (own ? !was.equals(is) : otherwise(is.id()))) {
          say("compare.action.other", is.line(after).in(), was.line(before).in());
        }
      }
      for (Action was : before) {
        boolean gone = after.stream().noneMatch(x -> x.id().equals(was.id()));
        if (gone && Score.point(was.id()).isEmpty()) {
          say("compare.action.gone", was.line(before).in());
        }
      }
    }

    /** Whether more is written of a point than before, or something else. */
    private boolean otherwise(String id) {
      PointKind kind = Score.point(id).orElseThrow();
      return !said(a, kind).equals(said(b, kind));
    }

    private void point(PointKind kind) {
      CornerPoint p = a.point(kind).orElse(null);
      CornerPoint q = b.point(kind).orElse(null);
      if (p == null && q == null) {
        return;
      }
      if (p == null || q == null) {
        say(
            kind,
            Said.of(p == null ? "compare.point.added" : "compare.point.gone", kind.said().in()));
        return;
      }
      double moved = Math.IEEEremainder(q.station() - p.station(), lapLength);
      if (Math.abs(moved) >= SAME_PLACE) {
        say(
            kind,
            Said.of(
                "compare.point.moved",
                kind.said().in(),
                Value.length(moved),
                Value.choice(moved > 0),
                place(p).in(),
                placeAfter(p, q).in()));
      }
    }

    private void beyondPoints() {
      for (School s : b.schools()) {
        if (!a.schools().contains(s)) {
          say(null, s.called());
        }
      }
      for (School s : a.schools()) {
        if (School.chosen(b.schools(), s.question()).isEmpty()) {
          say("compare.school.open", s.question().said().in());
        }
      }
      if (a.schools().equals(b.schools())) {
        share("compare.given", a.givenAway(), b.givenAway());
      }
      if (Math.abs(a.apexOff() - b.apexOff()) > 0.02) {
        double further = b.apexOff() - a.apexOff();
        say(
            PointKind.APEX,
            Said.of("compare.inside", Value.length(further, 1), Value.choice(further > 0)));
      }
      if (!Objects.equals(a.pedals(), b.pedals())) {
        say("compare.pedals");
      }
      for (Detail d : Detail.values()) {
        if (!a.detail(d).equals(b.detail(d))) {
          written(d, b.detail(d).strip());
        }
      }
      if (!a.kerbs().equals(b.kerbs())) {
        say("compare.kerbs");
      }
      for (PointKind kind : PointKind.values()) {
        Sureness was = a.point(kind).map(CornerPoint::sure).orElse(null);
        Sureness is = b.point(kind).map(CornerPoint::sure).orElse(null);
        if (was != is && is != null && a.point(kind).isPresent()) {
          say(kind, Said.of("compare.sure", kind.said().in(), is.said().in()));
        }
      }
      if (!Objects.equals(a.priority(), b.priority())) {
        Integer place = b.priority();
        if (place == null) {
          say("compare.priority.computed");
        } else {
          say("compare.priority.number", Value.count(place));
        }
      }
      if (!Objects.equals(a.wording(), b.wording())) {
        say("compare.wording");
      }
    }

    private void written(Detail d, String words) {
      if (d.choices().contains(words)) {
        say("compare.choice", d.said().in(), d.told(words).in());
      } else {
        written(d.said(), words);
      }
    }

    /** Words of the driver's own, or that there are none any more. */
    private void written(Said what, String words) {
      if (words.isBlank()) {
        say("compare.words.gone", what.in());
      } else {
        say("compare.words.said", what.in(), Value.own(words.strip()));
      }
    }

    private void share(String what, double before, double after) {
      if (Math.abs(before - after) > SAME_SHARE) {
        say("compare.amount", Said.of(what).in(), Value.percent(after), Value.percent(before));
      }
    }
  }

  /** What is written of a point beside its place, which is compared as a point. */
  private static Optional<Action> said(CornerEntry e, PointKind kind) {
    return e.point(kind)
        .flatMap(p -> Optional.ofNullable(p.play()))
        .map(p -> p.at(0).found(stripped(p.cue()), stripped(p.together()), stripped(p.backUp())));
  }

  private static @Nullable Cue stripped(@Nullable Cue cue) {
    return cue == null ? null : cue.with(Math.round(cue.number() * 10) / 10.0);
  }

  private Said place(CornerPoint point) {
    Tie tie = point.tie();
    return tie == null
        ? Said.of("compare.place.road", Value.length(point.station()))
        : Said.of("compare.place.thing", Value.own(Punctuation.brief(tie, units)));
  }

  /** The second place, without its landmark where that is the first's. */
  private Said placeAfter(CornerPoint first, CornerPoint second) {
    Tie a = first.tie();
    Tie b = second.tie();
    if (a != null && b != null && a.landmark().equals(b.landmark()) && Math.round(b.past()) != 0) {
      return Said.of("compare.place.past", Value.choice(b.past() > 0), Value.length(b.past()));
    }
    return place(second);
  }

  private static @Nullable CornerEntry entry(ReferenceContent content, String corner) {
    return content.corners().stream()
        .filter(e -> e.corner().equals(corner))
        .findFirst()
        .orElse(null);
  }
}
