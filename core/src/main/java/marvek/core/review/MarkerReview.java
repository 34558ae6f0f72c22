package marvek.core.review;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Loop;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.marker.Landmark;
import marvek.core.marker.MarkerJudge;
import marvek.core.marker.MarkerJudge.Grade;
import marvek.core.marker.MarkerJudge.Judgement;
import marvek.core.marker.Tie;
import marvek.core.plan.ComputedLap;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.survey.Kerb;
import marvek.core.survey.Things;
import marvek.core.survey.Zone;
import marvek.core.survey.ZoneKind;
import org.jspecify.annotations.Nullable;

/**
 * Every marker of a reference judged, better ones named, and corners that have none.
 *
 * @param points of the reference that are tied to a landmark, or ought to be
 * @param bare corners with no good marker for braking or, where none is braked for, for turning in
 * @param all every landmark of the survey judged at its own place, in the survey's order
 */
public record MarkerReview(List<MarkedPoint> points, List<Bare> bare, List<Judgement> all) {
  private static final double REACH_BRAKING = 70;
  private static final double REACH_OTHERS = 25;
  private static final int CLEARLY_BETTER = 8;
  private static final double AT_THE_LIMIT = 0.985;
  private static final double COUNTING = 0.15;
  // A mark that may be missed by more than this serves for nothing, metres.
  private static final double NO_USE = 20;

  /**
   * A point of the reference.
   *
   * @param corner id
   * @param kind of the point
   * @param spoken how its landmark is called, or empty
   * @param past metres past it
   * @param judgement of it; null where the point is tied to nothing
   * @param better a clearly better landmark in reach, or null
   */
  public record MarkedPoint(
      String corner,
      PointKind kind,
      String spoken,
      double past,
      @Nullable Judgement judgement,
      @Nullable Better better) {}

  /**
   * A better landmark.
   *
   * @param landmark id
   * @param spoken how it is called
   * @param past metres past it to the point
   * @param grade it would have
   * @param marks it would have
   */
  public record Better(String landmark, String spoken, double past, Grade grade, int marks) {}

  /**
   * A corner without a good marker.
   *
   * @param corner id
   * @param kind the point that needs one
   * @param serves what could serve, most precise first
   */
  public record Bare(String corner, PointKind kind, List<Serves> serves) {}

  /**
   * Something that could serve as a marker.
   *
   * @param words what it is and where
   * @param precision metres at that speed
   */
  public record Serves(Said words, double precision) {}

  /** Reviews a reference against a survey. */
  public static MarkerReview of(
      ComputedLap computed, ReferenceContent content, Things things, MarkerJudge.View view) {
    return new Reviewer(computed, things, view).review(content);
  }

  private static final class Reviewer {
    private final ComputedLap computed;
    private final Centreline road;
    private final Things things;
    private final MarkerJudge judge;

    Reviewer(ComputedLap computed, Things things, MarkerJudge.View view) {
      this.computed = computed;
      this.road = computed.road();
      this.things = things;
      this.judge = new MarkerJudge(road, things.landmarks(), view);
    }

    MarkerReview review(ReferenceContent content) {
      List<MarkedPoint> points = new ArrayList<>();
      List<Bare> bare = new ArrayList<>();
      for (CornerEntry e : content.corners()) {
        PointKind needed =
            e.points().stream().anyMatch(p -> p.kind() == PointKind.BRAKE)
                ? PointKind.BRAKE
                : PointKind.TURN_IN;
        for (CornerPoint p : e.points()) {
          MarkedPoint point = point(e, p);
          boolean counts = point.judgement() != null || p.kind() == needed;
          if (counts) {
            points.add(point);
          }
          if (p.kind() == needed && !hasGood(point)) {
            bare.add(new Bare(e.corner(), needed, serves(p)));
          }
        }
      }
      List<Judgement> all =
          things.landmarks().stream()
              .map(l -> judge.judge(l, 0, speed(l.station()), across(l.station())))
              .toList();
      return new MarkerReview(List.copyOf(points), List.copyOf(bare), all);
    }

    private static boolean hasGood(MarkedPoint point) {
      Judgement judgement = point.judgement();
      Better better = point.better();
      return (judgement != null && judgement.grade().compareTo(Grade.USABLE) <= 0)
          || (better != null && better.grade().compareTo(Grade.USABLE) <= 0);
    }

    private MarkedPoint point(CornerEntry e, CornerPoint p) {
      Tie tie = p.tie();
      Judgement now = null;
      double past = 0;
      String spoken = "";
      if (tie != null) {
        Optional<Landmark> landmark =
            things.landmarks().stream().filter(l -> l.id().equals(tie.landmark())).findFirst();
        past = tie.past();
        spoken = tie.spoken();
        if (landmark.isPresent()) {
          past = road.apart(landmark.get().station(), p.station());
          now = judge.judge(landmark.get(), past, speed(p.station()), across(p.station()));
        }
      }
      return new MarkedPoint(e.corner(), p.kind(), spoken, past, now, better(p, now));
    }

    private @Nullable Better better(CornerPoint p, @Nullable Judgement now) {
      double reach = p.kind() == PointKind.BRAKE ? REACH_BRAKING : REACH_OTHERS;
      int marks = now == null ? 34 : now.marks() + CLEARLY_BETTER - 1;
      String own = now == null ? "" : now.landmark();
      Better best = null;
      for (Landmark l : things.landmarks()) {
        double past = road.apart(l.station(), p.station());
        if (Math.abs(past) > reach || l.id().equals(own)) {
          continue;
        }
        Judgement other = judge.judge(l, past, speed(p.station()), across(p.station()));
        if (other.marks() > marks) {
          marks = other.marks();
          best = new Better(l.id(), l.spoken(), past, other.grade(), other.marks());
        }
      }
      return best;
    }

    private List<Serves> serves(CornerPoint p) {
      List<Serves> serves = new ArrayList<>();
      double v = speed(p.station());
      double reach = p.kind() == PointKind.BRAKE ? REACH_BRAKING : REACH_OTHERS;
      for (Kerb k : things.kerbs()) {
        edge(serves, p, k.from(), Said.of("serves.kerb_start"), 1, reach);
        edge(serves, p, k.to(), Said.of("serves.kerb_end"), 1, reach);
      }
      for (Zone z : things.zones()) {
        double blurred = seam(z.kind());
        Value zone = z.kind().said().in();
        if (blurred > 0) {
          edge(serves, p, z.from(), Said.of("serves.zone_start", zone), blurred, reach);
          edge(serves, p, z.to(), Said.of("serves.zone_end", zone), blurred, reach);
        }
      }
      limiter(p, v).ifPresent(serves::add);
      counted(p, v).ifPresent(serves::add);
      serves.removeIf(s -> s.precision() > NO_USE);
      serves.sort(Comparator.comparingDouble(Serves::precision));
      return List.copyOf(serves);
    }

    /** Metres to which the edge of a zone can be told by eye or feel; 0 when it cannot. */
    private static double seam(ZoneKind kind) {
      return switch (kind) {
        case SURFACE_CHANGE, DRAIN -> 0.7;
        case BUMP -> 2;
        case POLISHED, CREST, COMPRESSION -> 4;
        default -> 0;
      };
    }

    private void edge(
        List<Serves> serves, CornerPoint p, double at, Said what, double blurred, double reach) {
      double past = road.apart(at, p.station());
      if (Math.abs(past) > reach) {
        return;
      }
      Said place =
          Math.abs(past) < 1
              ? Said.of("serves.at", what.in())
              : Said.of(past > 0 ? "serves.past" : "serves.before", Value.length(past), what.in());
      serves.add(new Serves(place, Math.hypot(blurred, Landmark.BY_EYE * past)));
    }

    /** The engine reaching its limiter before the point is a mark that can be heard. */
    private Optional<Serves> limiter(CornerPoint p, double v) {
      int n = road.size();
      Loop loop = road.loop();
      int at = road.index(p.station());
      int top = computed.vehicle().gears();
      double limit = computed.vehicle().engine().limitRevs() * AT_THE_LIMIT;
      int k = 0;
      while (k < n / 4) {
        int i = loop.at(at - k);
        if (computed.vehicle().revs(computed.lap().unbraked()[i], top) < limit) {
          break;
        }
        k++;
      }
      double metres = k * road.step();
      if (k == 0 || k >= n / 4) {
        return Optional.empty();
      }
      double seconds = metres / Math.max(v, 1);
      return Optional.of(
          new Serves(
              Said.of("serves.limiter", Value.figure(seconds, 1), Value.count(top)),
              Math.max(2, COUNTING * seconds * v + 0.1 * v)));
    }

    /** Counting seconds from the last landmark that can be relied on. */
    private Optional<Serves> counted(CornerPoint p, double v) {
      return things.landmarks().stream()
          .filter(l -> road.ahead(l.station(), p.station()) < 250)
          .filter(
              l ->
                  judge.judge(l, 0, speed(l.station()), across(l.station())).grade() == Grade.SOLID)
          .min(Comparator.comparingDouble(l -> road.ahead(l.station(), p.station())))
          .map(
              l -> {
                double seconds = road.ahead(l.station(), p.station()) / Math.max(v, 1);
                return new Serves(
                    Said.of("serves.counted", Value.figure(seconds, 1), Value.own(l.spoken())),
                    Math.hypot(0.1 * v, COUNTING * seconds * v));
              });
    }

    private double speed(double station) {
      return computed.lap().unbraked()[road.index(station)];
    }

    private double across(double station) {
      return computed.path().offset()[road.index(station)];
    }
  }
}
