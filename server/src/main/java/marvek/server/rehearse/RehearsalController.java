package marvek.server.rehearse;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
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
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Score;
import marvek.core.lap.Conditions;
import marvek.core.lap.LapTrace;
import marvek.core.plan.ComputedLap;
import marvek.core.rehearse.Calls;
import marvek.core.rehearse.Drive;
import marvek.core.rehearse.Fact;
import marvek.core.rehearse.Facts;
import marvek.core.rehearse.Grade;
import marvek.core.rehearse.Happened;
import marvek.core.rehearse.Known;
import marvek.core.rehearse.Performance;
import marvek.core.rehearse.Recall;
import marvek.core.rehearse.Rehearsed;
import marvek.core.said.Said;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.vehicle.Vehicle;
import marvek.core.words.Speaker;
import marvek.server.access.Driver;
import marvek.server.reference.References;
import marvek.server.reference.Speaking;
import marvek.server.session.Planner;
import marvek.server.words.Speakers;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
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
  private final Speaking speaking;
  private final Speakers speakers;
  private final Voice voice;
  private final Clock clock;

  /** Facts by what they follow from: what they are worth takes a moment to compute. */
  private final Cache<Of, List<Fact>> facts = Caffeine.newBuilder().maximumSize(50).build();

  RehearsalController(
      Planner planner,
      Rehearsals rehearsals,
      Speaking speaking,
      Speakers speakers,
      Voice voice,
      Clock clock) {
    this.planner = planner;
    this.rehearsals = rehearsals;
    this.speaking = speaking;
    this.speakers = speakers;
    this.voice = voice;
    this.clock = clock;
  }

  private record Of(
      UUID reference,
      int version,
      Map<String, Integer> things,
      List<CornerEntry> entries,
      Conditions conditions) {}

  /**
   * A fact to be told.
   *
   * @param called its corner as the driver calls it
   * @param right what is to be told, in words
   * @param options kinds to choose from, where what comes next is asked
   * @param then chance that it is known at the hour of the session
   */
  record AskedView(Fact fact, String called, Said right, List<ActionKind> options, double then) {}

  /**
   * How an action stands.
   *
   * @param error how far off it was last told, in its unit; null for "no idea"
   * @param right when it was last right; null for never
   */
  record StandingView(
      String fact,
      String corner,
      Fact.Asks asks,
      double station,
      @Nullable Double error,
      Instant last,
      @Nullable Instant right,
      int times) {}

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
   * @param known how each fact stands that was asked before
   * @param calls of the lap aloud, at true speed
   * @param voice whether the server speaks them
   */
  record RehearsalView(
      UUID session,
      UUID reference,
      List<AskedView> asked,
      int left,
      List<StandingView> known,
      Known.Readiness ready,
      ClockView clock,
      List<Calls.Call> calls,
      boolean voice) {}

  @GetMapping("/rehearsal")
  RehearsalView rehearsal(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    Planner.Driven day = planner.driven(driver.id(), id);
    References.Opened opened = day.reference();
    List<Fact> all = facts(day);
    double lap = day.then().road().length();
    List<RehearsedRow> done = rehearsals.of(driver.id(), opened.row().id());
    Map<String, Known.Standing> known = Known.of(all, Rehearsals.answers(done), lap);
    ZoneId zone = day.session().timing().start().zone();
    Instant now = clock.instant();
    Recall recall =
        Recall.of(
            all, Known.held(known, now, zone), Known.days(now, day.session().timing().begins()));
    return new RehearsalView(
        id,
        opened.row().id(),
        asked(recall.asked(), day, driver),
        recall.left().size(),
        standing(all, known, day),
        Known.readiness(all, known),
        clock(day),
        Calls.of(cues(day, all, driver), 1),
        voice.there());
  }

  /** The lap called aloud as a sound file, for a passenger or when parked. */
  @GetMapping(value = "/calls.wav", produces = "audio/wav")
  ResponseEntity<byte[]> sound(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    Planner.Driven day = planner.driven(driver.id(), id);
    byte[] wav = voice.lap(cues(day, facts(day), driver), day.then().lap().lapTime());
    return ResponseEntity.ok()
        .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"calls.wav\"")
        .body(wav);
  }

  /** How ready a session is. */
  @GetMapping("/readiness")
  Known.Readiness readiness(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    Planner.Driven day = planner.driven(driver.id(), id);
    List<Fact> all = facts(day);
    List<RehearsedRow> done = rehearsals.of(driver.id(), day.reference().row().id());
    return Known.readiness(
        all, Known.of(all, Rehearsals.answers(done), day.then().road().length()));
  }

  private List<Fact> facts(Planner.Driven day) {
    ComputedLap then = day.then();
    Of key =
        new Of(
            day.reference().row().id(),
            day.reference().row().version(),
            day.reference().thingVersions(),
            day.entries(),
            then.conditions());
    return facts.get(
        key, k -> Facts.of(then, day.reference().things(), day.entries(), day.changed()));
  }

  private static List<StandingView> standing(
      List<Fact> all, Map<String, Known.Standing> known, Planner.Driven day) {
    Map<String, Fact> byId = all.stream().collect(Collectors.toMap(Fact::id, f -> f));
    return known.entrySet().stream()
        .map(e -> standing(byId.get(e.getKey()), e.getValue(), day))
        .toList();
  }

  private static StandingView standing(@Nullable Fact fact, Known.Standing s, Planner.Driven day) {
    Fact of = Objects.requireNonNull(fact);
    double station =
        of.asks() == Fact.Asks.PLACE
            ? of.answer()
            : day.entries().stream()
                .filter(e -> e.corner().equals(of.corner()))
                .flatMap(e -> Score.of(day.then().road(), e).stream())
                .filter(a -> a.id().equals(of.action()))
                .findFirst()
                .map(Action::station)
                .orElse(0.0);
    return new StandingView(
        of.id(), of.corner(), of.asks(), station, s.error(), s.last(), s.right(), s.times());
  }

  private List<AskedView> asked(
      List<Recall.Question> questions, Planner.Driven day, Driver driver) {
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
          new AskedView(f, speech.corner(corner), right(f, score), options(f, score), q.then()));
    }
    return out;
  }

  private static Said right(Fact f, List<Action> score) {
    return switch (f.asks()) {
      case GEAR -> Said.NOTHING;
      case NEXT -> ActionKind.values()[(int) f.answer()].said();
      case PLACE, SHARE ->
          score.stream()
              .filter(a -> a.id().equals(f.action()))
              .findFirst()
              .map(a -> a.line(score))
              .orElse(Said.NOTHING);
    };
  }

  private static List<ActionKind> options(Fact f, List<Action> score) {
    return f.asks() == Fact.Asks.NEXT
        ? score.stream().map(Action::kind).filter(ActionKind::pedal).distinct().sorted().toList()
        : List.of();
  }

  /** The lap aloud: what is pressed, by what it is worth. */
  private List<Calls.Cue> cues(Planner.Driven day, List<Fact> all, Driver driver) {
    Speaker speaker = speakers.of(driver);
    var speech = speaking.speech(driver);
    List<Corner> corners = day.reference().layout().counted();
    List<Calls.Cue> cues = new ArrayList<>();
    for (Performance.DueAction d : Drive.of(day.then(), day.entries()).due()) {
      if (d.key() == Performance.Control.GEAR) {
        continue;
      }
      CornerEntry entry =
          day.entries().stream()
              .filter(e -> e.corner().equals(d.corner()))
              .findFirst()
              .orElseThrow();
      List<Action> score = Score.of(day.then().road(), entry);
      Action action =
          score.stream().filter(a -> a.id().equals(d.action())).findFirst().orElseThrow();
      String corner = speech.corner(corners.get(day.then().indexOf(d.corner())));
      double worth =
          all.stream()
              .filter(f -> f.corner().equals(d.corner()) && f.action().equals(d.action()))
              .mapToDouble(Fact::worth)
              .max()
              .orElse(0);
      String how = speaker.say(action.said(score));
      // A number of metres from the line helps nobody who listens.
      String where = action.cue() == null ? how : speaker.say(action.line(score));
      cues.add(
          new Calls.Cue(
              d.at(), worth, List.of(corner + ", " + where, where, corner + ", " + how, how)));
    }
    return cues;
  }

  private static ClockView clock(Planner.Driven day) {
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
   */
  record ToldView(
      Map<UUID, Grade> grades,
      List<PerformedView> driven,
      List<StandingView> known,
      Known.Readiness ready) {}

  /** Takes what was answered and driven; the same sent twice is there once. */
  @PostMapping("/rehearsed")
  ToldView told(
      @PathVariable UUID id,
      @Valid @RequestBody AnswersRequest body,
      @AuthenticationPrincipal Driver driver) {
    Planner.Driven day = planner.driven(driver.id(), id);
    UUID reference = day.reference().row().id();
    rehearsals.take(
        driver.id(),
        reference,
        body.answers().stream()
            .map(a -> new Rehearsals.Sent(a.id(), a.at(), a.answered()))
            .toList());
    List<Fact> all = facts(day);
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
    Map<String, Known.Standing> known = Known.of(all, Rehearsals.answers(done), lap);
    return new ToldView(grades, driven, standing(all, known, day), Known.readiness(all, known));
  }

  /**
   * Tells a lap that was driven.
   *
   * @param day to tell what would have happened; null to leave that out
   */
  private PerformedView driven(
      RehearsedRow r, Drive drive, Planner.@Nullable Driven day, Driver driver) {
    Rehearsed a = r.body();
    List<Performance.Press> road =
        a.presses().stream()
            .map(p -> p.at(Performance.road(p.at(), a.lag(), a.rate())))
            .toList();
    Performance done = Performance.of(a.due(drive.due(), drive.lapTime()), road, drive::station);
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
    return new PerformedView(
        r.id(), r.doneAt(), a.rate(), a.dark(), a.rate() < 1 ? done.withoutBias() : done, happened);
  }

  /** Laps driven by heart, the latest first. */
  @GetMapping("/rehearsed")
  List<PerformedView> drives(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    Planner.Driven day = planner.driven(driver.id(), id);
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
