package marvek.core.session;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import marvek.core.anew.Refresh;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.CornerAnswer;
import marvek.core.review.Hazards;
import marvek.core.survey.Things;
import marvek.core.technique.Question;
import marvek.core.technique.School;
import marvek.core.vehicle.SetupParameter;
import marvek.core.vehicle.SetupSheet;
import marvek.core.vehicle.Vehicle;
import marvek.core.ways.Choices;
import org.jspecify.annotations.Nullable;

/** What can be tried against the plan, and what the computation makes of it. */
public final class Alternatives {
  // What differs by less is the same place.
  private static final double SAME_PLACE = 0.5;
  // Nobody tries what loses half a second in a corner.
  private static final double MOST_LOST = 0.5;
  // In hand, s: what is offered has as much as the plan, or this.
  private static final double MARGIN = 0.1;
  // m/s that count as faster.
  private static final double FASTER = 0.5;
  // More than a drawing shows.
  private static final int MOST_POINTS = 300;

  private Alternatives() {}

  /**
   * A way that can be tried.
   *
   * @param predicted seconds against the plan, negative where it is quicker; null where the
   *     computation does not understand it
   */
  public record Offer(Alternative way, @Nullable Double predicted) {}

  /**
   * Other schools of a corner that lead to something else, the one that gains most first.
   *
   * @param then lap of the day that it is to be tried on
   * @param entries of the whole lap as they are to be driven then
   */
  public static List<Offer> schools(
      ComputedLap then, Things things, List<CornerEntry> entries, String corner) {
    CornerEntry now = entry(entries, corner);
    List<Offer> out = new ArrayList<>();
    for (Question question : Choices.arising(then, things, now)) {
      for (School school : School.answering(question)) {
        school(then, things, entries, corner, school)
            .filter(o -> seconds(o) <= MOST_LOST)
            .ifPresent(out::add);
      }
    }
    out.sort(Comparator.comparingDouble(Alternatives::seconds));
    return List.copyOf(out);
  }

  /**
   * One school of a corner; nothing where it is followed already, cannot be, or leads to the same.
   *
   * <p>The light changes how a marker is told, and nothing that is driven. What is given away
   * between linked corners is a matter of several, and weighed on its own.
   */
  public static Optional<Offer> school(
      ComputedLap then, Things things, List<CornerEntry> entries, String corner, School school) {
    CornerEntry now = entry(entries, corner);
    Question question = school.question();
    if (question == Question.LIGHT
        || question == Question.LINKED
        || now.schools().contains(school)) {
      return Optional.empty();
    }
    return Choices.choose(then, things, entries, corner, school).stream()
        .findFirst()
        .map(w -> settled(then, things, now, w))
        .filter(w -> !driven(now, w))
        .flatMap(w -> offer(then, things, now, w, Alternative.Source.SCHOOL, school.name(), ""));
  }

  private static double seconds(Offer offer) {
    Double predicted = offer.predicted();
    return predicted == null ? 0 : predicted;
  }

  /** A way as it would be written: cues and speeds that follow from where its actions are now. */
  private static CornerEntry settled(
      ComputedLap then, Things things, CornerEntry had, CornerEntry way) {
    CornerEntry moved = Answers.followed(then, things, had, way);
    return Refresh.entry(then, things, moved);
  }

  /**
   * A corner as it is written elsewhere, where it differs from the plan.
   *
   * @param other the corner there
   * @return nothing where both are the same, where one of them cannot be made, where it has less in
   *     hand than the plan and a tenth of a second, and where it is bolder and something hard is
   *     near
   */
  public static Optional<Offer> written(
      ComputedLap then,
      Things things,
      CornerEntry now,
      CornerEntry other,
      Alternative.Source source,
      String key,
      String label) {
    return driven(now, other) && now.schools().equals(other.schools())
        ? Optional.empty()
        : offer(then, things, now, other, source, key, label);
  }

  private static Optional<Offer> offer(
      ComputedLap then,
      Things things,
      CornerEntry now,
      CornerEntry other,
      Alternative.Source source,
      String key,
      String label) {
    Answers answers = Answers.at(then, things, then.indexOf(now.corner()));
    CornerAnswer one = answers.answer(now);
    CornerAnswer two = answers.answer(other);
    Double is = one.time();
    Double would = two.time();
    boolean sure =
        other.station(PointKind.BRAKE).isEmpty()
            || answers.margin(other) >= Math.min(answers.margin(now), MARGIN);
    boolean dared =
        Hazards.of(then, things, now).shortRunOff() && bolder(then, now, one, other, two);
    return is == null || would == null || !sure || dared
        ? Optional.empty()
        : Optional.of(
            new Offer(Alternative.driving(source, key, label, List.of(other)), would - is));
  }

  /** Whether a way brakes later or is faster: nothing for where something hard is near. */
  private static boolean bolder(
      ComputedLap then, CornerEntry a, CornerAnswer is, CornerEntry b, CornerAnswer would) {
    boolean later =
        a.station(PointKind.BRAKE)
            .flatMap(x -> b.station(PointKind.BRAKE).map(y -> then.road().apart(x, y) > SAME_PLACE))
            .orElse(false);
    return later || would.minimumSpeed() > is.minimumSpeed() + FASTER;
  }

  /** Whether two entries are driven alike, whatever school they are said to follow. */
  private static boolean driven(CornerEntry a, CornerEntry b) {
    return a.points().stream()
            .allMatch(
                p ->
                    b.station(p.kind())
                        .map(s -> Math.abs(s - p.station()) < SAME_PLACE)
                        .orElse(false))
        && a.points().size() == b.points().size()
        && a.slowing() == b.slowing()
        && a.gear() == b.gear()
        && Objects.equals(a.pedals(), b.pedals())
        && a.schools().contains(School.LIMITER) == b.schools().contains(School.LIMITER)
        && a.schools().contains(School.SHIFT_UP) == b.schools().contains(School.SHIFT_UP)
        && a.actions().equals(b.actions());
  }

  /**
   * A sheet against the one that is on.
   *
   * @param garage the vehicle as it stands
   * @param on sheet that is on; null for none
   * @param sheet to try; null for none
   * @param source SHEET or SETTING
   */
  public static Offer setUp(
      ComputedLap then,
      Vehicle garage,
      @Nullable SetupSheet on,
      @Nullable SetupSheet sheet,
      Alternative.Source source,
      String key,
      String label) {
    Vehicle is = on == null ? garage : on.on(garage);
    Vehicle would = sheet == null ? garage : sheet.on(garage);
    Double predicted =
        understood(on, sheet)
            ? (Double) (then.driven(would).lapTime() - then.driven(is).lapTime())
            : null;
    return new Offer(Alternative.setUp(source, key, label, sheet), predicted);
  }

  /** Speeds of two ways through a corner. */
  public static PlannedTrial.Traces traces(
      ComputedLap then, Things things, CornerEntry a, CornerEntry b) {
    CornerAnswer.Profile one = Answers.answer(then, things, a).profile();
    CornerAnswer.Profile other = Answers.answer(then, things, b).profile();
    return traces(one.from(), one.step(), one.speed(), other.speed());
  }

  /** Speeds of a lap set up in two ways. */
  public static PlannedTrial.Traces traces(
      ComputedLap then, Vehicle garage, @Nullable SetupSheet a, @Nullable SetupSheet b) {
    return traces(
        0,
        then.road().step(),
        then.driven(a == null ? garage : a.on(garage)).speed(),
        then.driven(b == null ? garage : b.on(garage)).speed());
  }

  private static PlannedTrial.Traces traces(double from, double step, double[] a, double[] b) {
    int every = Math.max(1, a.length / MOST_POINTS);
    List<Double> one = new ArrayList<>();
    List<Double> other = new ArrayList<>();
    for (int i = 0; i < Math.min(a.length, b.length); i += every) {
      one.add(Math.round(a[i] * 100) / 100.0);
      other.add(Math.round(b[i] * 100) / 100.0);
    }
    return new PlannedTrial.Traces(from, step * every, one, other);
  }

  /** Whether the computation understands anything of what differs. */
  private static boolean understood(@Nullable SetupSheet a, @Nullable SetupSheet b) {
    SetupSheet empty = new SetupSheet("", SetupSheet.Purpose.DRY, List.of(), "");
    return (a == null ? empty : a)
        .against(b == null ? empty : b).stream()
            .flatMap(d -> SetupParameter.find(d.parameter()).stream())
            .anyMatch(SetupParameter::understood);
  }

  private static CornerEntry entry(List<CornerEntry> entries, String corner) {
    return entries.stream().filter(e -> e.corner().equals(corner)).findFirst().orElseThrow();
  }
}
