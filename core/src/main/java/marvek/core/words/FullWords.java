package marvek.core.words;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Detail;
import marvek.core.entry.KerbUse;
import marvek.core.entry.PointKind;
import marvek.core.entry.Slowing;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.ActionKind;
import marvek.core.score.Sureness;
import marvek.core.technique.Pedals;
import marvek.core.technique.Question;
import marvek.core.technique.School;

/** Everything that an entry holds, phase by phase, and what is written besides where it comes. */
final class FullWords {
  private final CornerEntry e;
  private final Speech speech;
  private final Speaker speaker;
  private final CornerWords words;
  private final String called;
  private final List<String> sentences = new ArrayList<>();
  // Metres past the apex up to which what the driver wrote besides the points is told.
  private double told = Double.NEGATIVE_INFINITY;

  FullWords(Corner corner, CornerEntry entry, Speech speech, Speaker speaker) {
    this.e = entry;
    this.speech = speech;
    this.speaker = speaker;
    this.words = new CornerWords(corner, entry, speech);
    this.called = speech.corner(corner);
  }

  String tell() {
    approach();
    if (e.slowing() == Slowing.BRAKE) {
      braking();
      shifting();
    }
    written(past(PointKind.TURN_IN));
    turning();
    if (e.slowing() == Slowing.BRAKE) {
      letGo();
    }
    written(past(PointKind.FIRST_APEX));
    // What is done at the apex is said after it.
    written(-Double.MIN_VALUE);
    touching();
    kerbs();
    written(past(staged() ? PointKind.FULL_THROTTLE : PointKind.FIRST_THROTTLE));
    opening();
    written(Double.POSITIVE_INFINITY);
    leaving();
    trouble();
    racing();
    feeling();
    riding();
    doubting();
    return called + ": " + String.join(" ", sentences);
  }

  private void say(List<Said> parts) {
    List<String> said = speaker.say(parts).stream().filter(p -> !p.isBlank()).toList();
    if (!said.isEmpty()) {
      sentences.add(Punctuation.sentence(said));
    }
  }

  /** A detail as it is written. */
  private Said detail(Detail d) {
    return detail(d, "entry.as_written");
  }

  /** A detail in words around it; nothing of one that is not written. */
  private Said detail(Detail d, String key) {
    String said = e.detail(d).strip();
    return said.isEmpty() ? Said.NOTHING : Said.of(key, d.told(said).in());
  }

  private void approach() {
    Said start =
        switch (e.slowing()) {
          case FLAT -> words.flat();
          // A lift that is written is told where it comes.
          case LIFT ->
              words.own().stream().anyMatch(a -> a.kind() == ActionKind.LIFT)
                  ? Said.NOTHING
                  : words.lifted();
          case BRAKE ->
              Said.of(
                  "full.arrive",
                  Value.speed(e.approachSpeed()),
                  CornerWords.gear(e.approachGear()).in());
        };
    List<Said> parts = new ArrayList<>(List.of(start));
    if (e.slowing() == Slowing.LIFT) {
      chosen(Question.SLOW_WITH, "entry.as_written").ifPresent(parts::add);
      School.chosen(e.schools(), Question.LIFT).map(School::called).ifPresent(parts::add);
    }
    parts.add(detail(Detail.APPROACH_SIDE, "full.side"));
    parts.add(detail(Detail.PREPARE, "full.from_before"));
    say(parts);
  }

  private void braking() {
    written(words.toBrake());
    List<Said> parts = new ArrayList<>();
    parts.add(words.brakingTo());
    chosen(Question.BRAKE_SHAPE, "entry.as_written").ifPresent(parts::add);
    parts.add(detail(Detail.BRAKING_WHILE));
    parts.add(detail(Detail.BRAKING_SIDE, "full.side"));
    parts.add(detail(Detail.BUMPS, "full.bumps"));
    parts.add(detail(Detail.FRONT_SHARE, "full.front"));
    marker(PointKind.BACK_UP, "full.hidden").ifPresent(parts::add);
    marker(PointKind.BUILD_UP, "full.build_up").ifPresent(parts::add);
    marker(PointKind.TARGET, "full.target").ifPresent(parts::add);
    chosen(Question.LIGHT, "full.shadows").ifPresent(parts::add);
    chosen(Question.MARKERS, "full.markers").ifPresent(parts::add);
    say(parts);
  }

  private Optional<Said> marker(PointKind kind, String key) {
    return e.point(kind)
        .map(
            p ->
                p.tie() == null
                    ? Said.of(key, Value.length(p.station()))
                    : Said.of(key, Value.own(Punctuation.brief(p.tie(), speech.units()))));
  }

  private Optional<Said> chosen(Question question, String key) {
    return School.chosen(e.schools(), question).map(s -> Said.of(key, s.said().in()));
  }

  private void shifting() {
    List<Said> parts = new ArrayList<>();
    parts.add(words.gears());
    marker(PointKind.DOWNSHIFT, "full.first_shift").ifPresent(parts::add);
    chosen(Question.GEAR, "entry.as_written").ifPresent(parts::add);
    parts.add(detail(Detail.FOOTWORK));
    say(parts);
  }

  private void turning() {
    List<Said> parts = new ArrayList<>();
    e.point(PointKind.TURN_IN)
        .ifPresent(p -> parts.add(Said.of("full.turn_in", words.where(p).in())));
    parts.add(detail(Detail.HANDS, "full.hands"));
    parts.add(detail(Detail.AIM, "full.look"));
    say(parts);
  }

  private void letGo() {
    List<Said> parts = new ArrayList<>();
    words.release().ifPresent(parts::add);
    Pedals pedals = e.pedals();
    if (pedals != null) {
      double left = pedals.trail() * e.firstEffort();
      parts.add(Said.of("full.left", Value.percent(left), Value.percent(left / 2)));
    }
    chosen(Question.HANDS, "entry.as_written").ifPresent(parts::add);
    chosen(Question.TRAIL, "full.trail").ifPresent(parts::add);
    if (e.detail(Detail.COAST).equals("yes")) {
      parts.add(Said.of("full.roll"));
    }
    say(parts);
  }

  private void touching() {
    List<Said> parts = new ArrayList<>();
    chosen(Question.LINE, "entry.as_written").ifPresent(parts::add);
    chosen(Question.WIDTH, "full.width").ifPresent(parts::add);
    chosen(Question.CROSSING, "full.crossing").ifPresent(parts::add);
    e.point(PointKind.FIRST_APEX)
        .ifPresent(p -> parts.add(Said.of("full.first_apex", words.where(p).in())));
    parts.add(words.apex());
    parts.add(Said.of("full.inside", Value.length(Math.max(0, e.apexGap()))));
    parts.add(Said.of("full.lowest", Value.speed(e.minimumSpeed())));
    chosen(Question.LINKED, "entry.as_written").ifPresent(parts::add);
    parts.addAll(words.again());
    say(parts);
  }

  private void kerbs() {
    List<Said> parts = new ArrayList<>();
    for (KerbUse use : e.kerbs()) {
      Said part =
          Said.of(
              "full.kerb.use",
              Said.of("kerb.part." + use.part()).in(),
              Said.of("kerb.verdict." + use.how()).in());
      Double join = use.join();
      Double leave = use.leave();
      if (join != null) {
        part = Said.of("full.kerb.join", part.in(), Value.length(join));
      }
      if (leave != null) {
        part = Said.of("full.kerb.leave", part.in(), Value.length(leave));
      }
      if (!use.why().isBlank()) {
        part = Said.of("full.kerb.why", part.in(), Value.own(use.why().strip()));
      }
      parts.add(part);
    }
    chosen(Question.KERBS, "full.kerbs").ifPresent(parts::add);
    chosen(Question.BEYOND, "full.beyond").ifPresent(parts::add);
    say(parts);
  }

  /** What is written besides the points, up to some metres past the apex, each once. */
  private void written(double to) {
    List<String> parts = own(to);
    if (!parts.isEmpty()) {
      sentences.add(Punctuation.sentence(parts));
    }
  }

  /** Metres past the apex at which a point lies; what is told already where there is none. */
  private double past(PointKind kind) {
    return e.station(kind).map(words::pastApex).orElse(told);
  }

  /** The same, where it comes in driving. */
  private List<String> own(double to) {
    double from = told;
    told = Math.max(from, to);
    String apexWord = speaker.say(Said.of("entry.apex.word"));
    boolean named = sentences.stream().anyMatch(s -> s.contains(apexWord));
    List<String> parts = new ArrayList<>();
    for (Clause c : placed()) {
      if (c.past() > from && c.past() <= to) {
        String said = speaker.say(named ? c.words() : c.first());
        named |= said.contains(apexWord);
        parts.add(said);
      }
    }
    return parts;
  }

  /** What the driver wrote, and the throttle with it where that is opened in stages. */
  private List<Clause> placed() {
    List<Clause> all = new ArrayList<>();
    if (staged()) {
      all.addAll(words.throttleInPlace("entry.throttle.taken"));
    }
    all.addAll(words.ownInPlace());
    all.sort(Comparator.comparingDouble(Clause::past));
    return all;
  }

  /** Whether something is written between the first throttle and all of it. */
  private boolean staged() {
    Optional<Double> first = e.station(PointKind.FIRST_THROTTLE).map(words::pastApex);
    Optional<Double> full = e.station(PointKind.FULL_THROTTLE).map(words::pastApex);
    return e.slowing() != Slowing.FLAT
        && first.isPresent()
        && full.isPresent()
        && words.own().stream()
            .mapToDouble(a -> words.pastApex(a.station()))
            .anyMatch(at -> at >= first.get() && at <= full.get());
  }

  private void opening() {
    List<Said> parts = new ArrayList<>();
    if (!staged()) {
      words.throttle().ifPresent(parts::add);
    }
    parts.add(detail(Detail.CUE, "full.when"));
    chosen(Question.ROLL, "entry.as_written").ifPresent(parts::add);
    chosen(Question.THROTTLE, "entry.as_written").ifPresent(parts::add);
    Pedals pedals = e.pedals();
    if (pedals != null && pedals.maintain() > 0.05) {
      parts.add(Said.of("full.hold"));
    }
    parts.add(detail(Detail.PATIENCE));
    marker(PointKind.SHORT_SHIFT, "full.short_shift").ifPresent(parts::add);
    chosen(Question.SHIFT, "entry.as_written").ifPresent(parts::add);
    chosen(Question.CREST, "full.crest").ifPresent(parts::add);
    chosen(Question.FRONT_WHEEL, "full.front").ifPresent(parts::add);
    say(parts);
  }

  private void leaving() {
    say(
        List.of(
            detail(Detail.EXIT_AIM, "full.run_to"),
            detail(Detail.NEXT_NEEDS, "full.next"),
            detail(Detail.LIMIT, "full.limit")));
  }

  private void trouble() {
    say(
        List.of(
            detail(Detail.HAZARD, "full.mind"),
            detail(Detail.MISTAKE, "full.mistake"),
            detail(Detail.ESCAPE, "full.escape")));
  }

  private void racing() {
    say(
        List.of(
            overtaking(),
            detail(Detail.RACE_LINE),
            detail(Detail.GLANCE, "full.instruments"),
            detail(Detail.BREATHE, "full.breathe")));
  }

  private Said overtaking() {
    String way = e.detail(Detail.OVERTAKE);
    return Detail.OVERTAKE.choices().contains(way)
        ? Said.of("full.overtake", new Value.Choice(way))
        : Said.NOTHING;
  }

  private void feeling() {
    say(
        List.of(
            detail(Detail.FEELS_IN, "full.feels.in"),
            detail(Detail.FEELS_MIDDLE, "full.feels.middle"),
            detail(Detail.FEELS_OUT, "full.feels.out")));
  }

  private void riding() {
    say(
        List.of(
            detail(Detail.BODY, "full.body"),
            detail(Detail.WHEEL_CARE),
            detail(Detail.KNEE, "full.knee")));
  }

  private void doubting() {
    List<Said> unsure =
        e.points().stream()
            .filter(p -> p.sure() == Sureness.UNSURE || p.sure() == Sureness.CARRIED)
            .map(p -> p.kind().said())
            .toList();
    if (!unsure.isEmpty()) {
      say(List.of(Said.of("full.unsure", Said.listed(unsure).in())));
    }
  }
}
