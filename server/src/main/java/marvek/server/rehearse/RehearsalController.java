package marvek.server.rehearse;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Score;
import marvek.core.lap.LapTrace;
import marvek.core.plan.ComputedLap;
import marvek.core.rehearse.AtSpeed;
import marvek.core.rehearse.Calls;
import marvek.core.rehearse.Drive;
import marvek.core.rehearse.Fact;
import marvek.core.rehearse.Grade;
import marvek.core.rehearse.Happened;
import marvek.core.rehearse.Known;
import marvek.core.rehearse.Performance;
import marvek.core.rehearse.Recall;
import marvek.core.rehearse.Rehearsed;
import marvek.core.said.Said;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.score.Cue;
import marvek.core.survey.Things;
import marvek.core.vehicle.Vehicle;
import marvek.core.words.Speaker;
import marvek.server.access.Driver;
import marvek.server.reference.References;
import marvek.server.reference.Speaking;
import marvek.server.session.Planner;
import marvek.server.words.Speakers;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Rehearsing a session: what is asked, the lap on the clock, and how ready it is. */
@RestController
@RequestMapping("/api/sessions/{id}")
class RehearsalController {
  // Metres between the samples of the lap on the clock.
  private static final double SAMPLE = 10;

  private final Planner planner;
  private final Rehearsals rehearsals;
  private final Heart heart;
  private final Spoken spoken;
  private final Missed missed;
  private final Speaking speaking;
  private final Speakers speakers;
  private final Voice voice;
  private final Clock clock;

  RehearsalController(
      Planner planner,
      Rehearsals rehearsals,
      Heart heart,
      Spoken spoken,
      Missed missed,
      Speaking speaking,
      Speakers speakers,
      Voice voice,
      Clock clock) {
    this.planner = planner;
    this.rehearsals = rehearsals;
    this.heart = heart;
    this.spoken = spoken;
    this.missed = missed;
    this.speaking = speaking;
    this.speakers = speakers;
    this.voice = voice;
    this.clock = clock;
  }

  /**
   * A fact to be told.
   *
   * @param called its corner as the driver calls it
   * @param right what is to be told, in words
   * @param options kinds to choose from, where what comes next or before is asked
   * @param from what its cue hangs on, to tell it in metres from there; null without one
   * @param then chance that it is known at the hour of the session
   */
  record AskedView(
      Fact fact,
      String called,
      Said right,
      List<ActionKind> options,
      @Nullable FromView from,
      double then) {}

  /** A thing beside the road from which metres are counted. */
  record FromView(String spoken, double station) {}

  /**
   * The lap on the clock.
   *
   * @param step metres between samples
   * @param times seconds at each, from the line
   * @param speed m/s
   * @param revs per minute
   */
  record ClockView(
      double lapTime,
      double length,
      double step,
      List<Double> times,
      List<Double> speed,
      List<Long> revs,
      List<Integer> gear,
      List<Performance.DueAction> due,
      int cylinders,
      int strokes) {}

  /**
   * A rehearsal.
   *
   * @param reference that it is of
   * @param asked now, in this order
   * @param left how many there is no time for
   * @param leftIn corners that those are of, in driving order
   * @param known how each fact stands that was asked before
   * @param calls of the lap aloud, at true speed
   * @param summary the lap in ten seconds
   * @param faster what comes at another time when the road is fast
   * @param missed what is often missed, and ways to remember it
   * @param voice whether the server speaks them
   */
  record RehearsalView(
      UUID session,
      UUID reference,
      List<AskedView> asked,
      int left,
      List<String> leftIn,
      List<Heart.StandingView> known,
      Known.Readiness ready,
      ClockView clock,
      List<Calls.Call> calls,
      List<String> summary,
      List<Missed.RememberView> missed,
      List<AtSpeed> faster,
      boolean voice) {}

  @GetMapping("/rehearsal")
  RehearsalView rehearsal(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    Planner.Outing day = planner.driven(driver.id(), id);
    References.Opened opened = day.reference();
    List<Fact> all = heart.facts(day);
    List<RehearsedRow> done = rehearsals.of(driver.id(), opened.row().id());
    Map<String, Known.Standing> known = heart.known(driver.id(), day, done);
    ZoneId zone = day.session().timing().start().zone();
    Instant now = clock.instant();
    Recall recall =
        Recall.of(
            all, Known.held(known, now, zone), Known.days(now, day.session().timing().begins()));
    List<Spoken.CornerCue> cues = spoken.cues(day, driver);
    return new RehearsalView(
        id,
        opened.row().id(),
        asked(recall.asked(), day, driver),
        recall.left().size(),
        corners(recall.left(), day, driver),
        heart.standing(known, day),
        Known.readiness(all, known),
        clock(day),
        Calls.of(cues.stream().map(Spoken.CornerCue::cue).toList(), 1),
        spoken.summary(day, cues, driver),
        missed.of(known, day, driver),
        faster(day, done),
        voice.there());
  }

  /** How ready a session is. */
  @GetMapping("/readiness")
  Known.Readiness readiness(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    Planner.Outing day = planner.driven(driver.id(), id);
    List<Fact> all = heart.facts(day);
    return Known.readiness(all, heart.known(driver.id(), day));
  }

  private List<String> corners(List<Recall.Question> questions, Planner.Outing day, Driver driver) {
    var speech = speaking.speech(driver);
    Set<String> of = questions.stream().map(q -> q.fact().corner()).collect(Collectors.toSet());
    return day.reference().layout().counted().stream()
        .filter(c -> of.contains(c.id()))
        .map(speech::corner)
        .toList();
  }

  private List<AskedView> asked(
      List<Recall.Question> questions, Planner.Outing day, Driver driver) {
    var speech = speaking.speech(driver);
    List<Corner> corners = day.reference().layout().counted();
    List<AskedView> out = new ArrayList<>();
    for (Recall.Question q : questions) {
      Fact f = q.fact();
      Corner corner = corners.get(day.then().indexOf(f.corner()));
      CornerEntry entry =
          day.entries().stream()
              .filter(e -> e.corner().equals(f.corner()))
              .findFirst()
              .orElseThrow();
      List<Action> score = Score.of(day.then().road(), entry);
      out.add(
          new AskedView(
              f,
              speech.corner(corner),
              right(f, score),
              options(f, score),
              from(f, score, day.reference().things()),
              q.then()));
    }
    return out;
  }

  private static Said right(Fact f, List<Action> score) {
    return switch (f.asks()) {
      case GEAR -> Said.NOTHING;
      case NEXT, BEFORE -> ActionKind.values()[(int) f.answer()].said();
      case PLACE, SHARE ->
          score.stream()
              .filter(a -> a.id().equals(f.action()))
              .findFirst()
              .map(a -> a.line(score))
              .orElse(Said.NOTHING);
    };
  }

  private static @Nullable FromView from(Fact f, List<Action> score, Things things) {
    if (f.asks() != Fact.Asks.PLACE) {
      return null;
    }
    String thing =
        score.stream()
            .filter(a -> a.id().equals(f.action()))
            .map(Action::cue)
            .filter(Objects::nonNull)
            .map(Cue::thing)
            .findFirst()
            .orElse("");
    return things.landmarks().stream()
        .filter(l -> l.id().equals(thing))
        .findFirst()
        .map(l -> new FromView(l.spoken(), l.station()))
        .orElse(null);
  }

  private static List<ActionKind> options(Fact f, List<Action> score) {
    if (f.asks() != Fact.Asks.NEXT && f.asks() != Fact.Asks.BEFORE) {
      return List.of();
    }
    // The right one may be of the next corner; what a foot does next in any corner is on offer.
    return Stream.concat(
            Stream.of(ActionKind.values()[(int) f.answer()], ActionKind.LIFT, ActionKind.THROTTLE),
            score.stream().map(Action::kind).filter(ActionKind::pedal))
        .distinct()
        .sorted()
        .toList();
  }

  private static ClockView clock(Planner.Outing day) {
    ComputedLap then = day.then();
    Drive drive = Drive.of(then, day.entries());
    LapTrace lap = then.lap();
    Vehicle vehicle = then.vehicle();
    int every = Math.max(1, (int) Math.round(SAMPLE / drive.step()));
    List<Double> times = new ArrayList<>();
    List<Double> speed = new ArrayList<>();
    List<Long> revs = new ArrayList<>();
    List<Integer> gear = new ArrayList<>();
    for (int i = 0; i < drive.times().length; i += every) {
      times.add(Math.round(drive.times()[i] * 1000) / 1000.0);
      speed.add(Math.round(lap.speed()[i] * 100) / 100.0);
      revs.add(Math.round(vehicle.revs(lap.speed()[i], lap.gear()[i])));
      gear.add(lap.gear()[i]);
    }
    return new ClockView(
        drive.lapTime(),
        then.road().length(),
        drive.step() * every,
        times,
        speed,
        revs,
        gear,
        drive.due(),
        vehicle.engine().firing(),
        vehicle.engine().strokesOrUsual());
  }

  record AnswerRequest(@NotNull UUID id, @NotNull Instant at, @NotNull Rehearsed answered) {}

  record AnswersRequest(@NotNull @Size(max = 500) List<@Valid AnswerRequest> answers) {}

  /**
   * What became of a lap that was driven by heart.
   *
   * @param id as the device named it
   * @param happened what would have become of the corners; of the latest lap only
   */
  record PerformedView(
      UUID id,
      Instant at,
      double rate,
      boolean dark,
      Performance performance,
      List<HappenedView> happened) {}

  /**
   * What would have become of a corner, had the action been done where it was pressed.
   *
   * @param seconds lost; null where the corner cannot be made
   * @param deep metres by which it was braked too late, or null
   * @param look how that looks from the seat
   */
  record HappenedView(
      String corner, String action, @Nullable Double seconds, @Nullable Double deep, String look) {}

  /**
   * What became of what was sent.
   *
   * @param grades by id of the answer
   * @param known how each fact stands now that was asked before
   * @param faster what comes at another time when the road is fast
   */
  record ToldView(
      Map<UUID, Grade> grades,
      List<PerformedView> driven,
      List<Heart.StandingView> known,
      Known.Readiness ready,
      List<AtSpeed> faster) {}

  /** Takes what was answered and driven; the same sent twice is there once. */
  @PostMapping("/rehearsed")
  ToldView told(
      @PathVariable UUID id,
      @Valid @RequestBody AnswersRequest body,
      @AuthenticationPrincipal Driver driver) {
    Planner.Outing day = planner.driven(driver.id(), id);
    UUID reference = day.reference().row().id();
    rehearsals.take(
        driver.id(),
        reference,
        body.answers().stream()
            .map(a -> new Rehearsals.Sent(a.id(), a.at(), a.answered()))
            .toList());
    List<Fact> all = heart.facts(day);
    double lap = day.then().road().length();
    List<RehearsedRow> done = rehearsals.of(driver.id(), reference);
    Set<UUID> sent = body.answers().stream().map(AnswerRequest::id).collect(Collectors.toSet());
    Map<UUID, Grade> grades = new TreeMap<>();
    List<PerformedView> driven = new ArrayList<>();
    Drive drive = Drive.of(day.then(), day.entries());
    UUID latest =
        done.stream()
            .filter(r -> sent.contains(r.id()) && r.body().driven())
            .reduce((a, b) -> b)
            .map(RehearsedRow::id)
            .orElse(null);
    for (RehearsedRow r : done) {
      if (!sent.contains(r.id())) {
        continue;
      }
      if (r.body().driven()) {
        driven.add(driven(r, drive, r.id().equals(latest) ? day : null, driver));
      } else {
        all.stream()
            .filter(f -> f.id().equals(r.body().fact()))
            .findFirst()
            .ifPresent(
                f -> {
                  Double t = r.body().told();
                  grades.put(r.id(), t == null ? Grade.AGAIN : f.grade(t, lap));
                });
      }
    }
    Map<String, Known.Standing> known = heart.known(driver.id(), day, done);
    return new ToldView(
        grades, driven, heart.standing(known, day), Known.readiness(all, known), faster(day, done));
  }

  /**
   * Tells a lap that was driven.
   *
   * @param day to tell what would have happened; null to leave that out
   */
  private PerformedView driven(
      RehearsedRow r, Drive drive, Planner.@Nullable Outing day, Driver driver) {
    Rehearsed a = r.body();
    Performance done = a.against(drive);
    Speaker speaker = speakers.of(driver);
    List<HappenedView> happened =
        day == null
            ? List.of()
            : Happened.of(day.then(), day.reference().things(), day.entries(), done.met()).stream()
                .map(
                    h ->
                        new HappenedView(
                            h.corner(), h.action(), h.seconds(), h.deep(), speaker.say(h.look())))
                .toList();
    return new PerformedView(r.id(), r.doneAt(), a.rate(), a.dark(), done, happened);
  }

  private static List<AtSpeed> faster(Planner.Outing day, List<RehearsedRow> done) {
    Drive drive = Drive.of(day.then(), day.entries());
    return AtSpeed.of(
        done.stream()
            .map(RehearsedRow::body)
            .filter(Rehearsed::driven)
            .map(r -> new AtSpeed.Lap(r.rate(), r.still(drive)))
            .toList());
  }

  /** Laps driven by heart, the latest first. */
  @GetMapping("/rehearsed")
  List<PerformedView> drives(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    Planner.Outing day = planner.driven(driver.id(), id);
    Drive drive = Drive.of(day.then(), day.entries());
    List<PerformedView> out = new ArrayList<>();
    List<RehearsedRow> all = rehearsals.of(driver.id(), day.reference().row().id());
    for (int i = all.size() - 1; i >= 0 && out.size() < 20; i--) {
      if (all.get(i).body().driven()) {
        out.add(driven(all.get(i), drive, out.isEmpty() ? day : null, driver));
      }
    }
    return out;
  }
}
