package marvek.core.words;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.Detail;
import marvek.core.entry.KerbUse;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.entry.Slowing;
import marvek.core.entry.Wording;
import marvek.core.line.ApexType;
import marvek.core.marker.Tie;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.score.Cue;
import marvek.core.score.Sureness;
import marvek.core.technique.Pedals;
import marvek.core.technique.Question;
import marvek.core.technique.School;
import marvek.core.units.Display;

/**
 * Says a corner in plain words, in the driver's units, at four lengths: for the pocket, in one
 * line, in full, and to be said aloud.
 */
public final class Sentence {
  // Metres within which something is at the apex.
  private static final double AT_APEX = 3;
  private static final String[] ORDINALS = {
    "neutral", "first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth", "ninth",
    "tenth"
  };
  private static final String[] COUNTS = {
    "", "one", "two", "three", "four", "five", "six", "seven"
  };

  private Sentence() {}

  /**
   * Own words in place of the computed ones, and whether they are due for another look.
   *
   * @param full everything the entry holds
   * @param line the corner in one line
   * @param pocket marker, gear and one word
   * @param spoken what is done, in words to be said aloud
   * @param own the driver's own line, or empty
   * @param due whether the points have changed since the driver wrote it
   * @param plain the line in metres and km/h, which own words are kept with
   */
  public record Words(
      String full,
      String line,
      String pocket,
      String spoken,
      String own,
      boolean due,
      String plain) {}

  /** A corner at all three lengths. */
  public static Words words(Corner corner, CornerEntry e, Speech speech) {
    Wording own = e.wording();
    String plain = line(corner, e, Speech.PLAIN.on(speech.lap()));
    return new Words(
        full(corner, e, speech),
        line(corner, e, speech),
        pocket(corner, e, speech),
        spoken(corner, e, speech),
        own == null ? "" : own.text(),
        own != null && !own.about().equals(plain),
        plain);
  }

  /** The corner in one line: marker, effort, gears, hands, release, apex, speed and throttle. */
  public static String line(Corner corner, CornerEntry e, Speech speech) {
    return sentence(written(e) ? inOrder(corner, e, speech, false) : points(corner, e, speech))
        + withNote(e);
  }

  private static boolean written(CornerEntry e) {
    return e.actions().stream().anyMatch(a -> Score.point(a.id()).isEmpty());
  }

  /** A corner of which nothing is written but its points. */
  private static List<String> points(Corner corner, CornerEntry e, Speech speech) {
    Display units = speech.units();
    List<String> parts = new ArrayList<>();
    switch (e.slowing()) {
      case FLAT -> parts.add("flat in " + ordinal(e.approachGear()));
      case LIFT -> parts.add("lift to " + units.speed(e.minimumSpeed()));
      case BRAKE -> {
        parts.add(brake(e, speech));
        parts.add(gears(e));
      }
    }
    e.point(PointKind.TURN_IN)
        .flatMap(p -> Optional.ofNullable(p.tie()))
        .ifPresent(t -> parts.add("hands " + near(t, units)));
    if (e.slowing() == Slowing.BRAKE) {
      release(e, speech).ifPresent(parts::add);
    }
    parts.add(apex(corner, e));
    if (e.slowing() == Slowing.BRAKE) {
      parts.add(units.speed(e.minimumSpeed()));
    }
    parts.addAll(again(e, speech));
    throttle(e, speech).ifPresent(parts::add);
    return parts;
  }

  /**
   * Something that is said of a place.
   *
   * @param past metres past the apex
   */
  private record Clause(double past, String words) {
    /** The same where the apex has not been named yet. */
    String first() {
      return words.replaceFirst(" (before|past) it$", " $1 the apex");
    }
  }

  /** Everything done in a corner in the order in which it is driven. */
  private static List<String> inOrder(
      Corner corner, CornerEntry e, Speech speech, boolean withoutSpeeds) {
    List<Clause> all = new ArrayList<>();
    String slowest = withoutSpeeds ? "" : ", " + speech.units().speed(e.minimumSpeed());
    boolean brakes = e.slowing() == Slowing.BRAKE;
    if (brakes) {
      double at = toBrake(e, speech);
      all.add(
          new Clause(
              at,
              withoutSpeeds
                  ? e.point(PointKind.BRAKE).map(p -> "brake" + where(e, p, speech)).orElse("brake")
                      + ", "
                      + firmness(e.firstEffort())
                  : brake(e, speech)));
      all.add(new Clause(at, gears(e)));
      Optional<String> off = release(e, speech);
      e.station(PointKind.RELEASE)
          .ifPresent(r -> off.ifPresent(w -> all.add(new Clause(pastApex(e, r, speech), w))));
    } else if (e.actions().stream().noneMatch(a -> a.kind() == ActionKind.LIFT)) {
      String how = e.slowing() == Slowing.FLAT ? "flat in " + ordinal(e.approachGear()) : "lift";
      all.add(new Clause(Double.NEGATIVE_INFINITY, how));
    }
    if (!withoutSpeeds) {
      e.point(PointKind.TURN_IN)
          .ifPresent(
              p -> {
                Tie tie = p.tie();
                if (tie != null) {
                  String hands = "hands " + near(tie, speech.units());
                  all.add(new Clause(pastApex(e, p.station(), speech), hands));
                }
              });
    }
    all.add(new Clause(0, apex(corner, e) + (e.slowing() == Slowing.FLAT ? "" : slowest)));
    List<String> again = again(e, speech);
    for (int k = 0; k < again.size(); k++) {
      all.add(new Clause(pastApex(e, e.again().get(k).station(), speech), again.get(k)));
    }
    if (e.slowing() != Slowing.FLAT) {
      e.station(PointKind.FIRST_THROTTLE)
          .ifPresent(
              f -> all.add(new Clause(pastApex(e, f, speech), share(e) + fromApex(e, f, speech))));
      e.station(PointKind.FULL_THROTTLE)
          .ifPresent(
              f ->
                  all.add(
                      new Clause(pastApex(e, f, speech), "all of it " + fromApex(e, f, speech))));
    }
    all.addAll(own(e, speech));
    List<Clause> sorted = all.stream().sorted(Comparator.comparingDouble(Clause::past)).toList();
    List<String> out = new ArrayList<>();
    boolean named = false;
    for (Clause c : sorted) {
      String said = named ? c.words() : c.first();
      named |= said.contains("apex");
      out.add(said);
    }
    return out;
  }

  /** What is done in the corner, without its speeds, as a voice says it. */
  public static String spoken(Corner corner, CornerEntry e, Speech speech) {
    List<String> parts = new ArrayList<>();
    parts.add(aloud(corner, speech));
    if (written(e)) {
      parts.addAll(inOrder(corner, e, speech, true));
      return sentenceCase(Spoken.of(sentence(parts)));
    }
    switch (e.slowing()) {
      case FLAT -> parts.add("flat in " + ordinal(e.approachGear()));
      case LIFT -> parts.add("lift");
      case BRAKE -> {
        parts.add(
            e.point(PointKind.BRAKE).map(p -> "brake" + where(e, p, speech)).orElse("brake")
                + ", "
                + firmness(e.firstEffort()));
        parts.add(gears(e));
        release(e, speech).ifPresent(parts::add);
      }
    }
    parts.add(apex(corner, e));
    parts.addAll(again(e, speech));
    throttle(e, speech).ifPresent(parts::add);
    return sentenceCase(Spoken.of(sentence(parts)));
  }

  /** Corner, marker and gear, said aloud: "Five, at the one hundred fifty board, second." */
  static String brief(Corner corner, CornerEntry e, Speech speech) {
    String marker =
        switch (e.slowing()) {
          case FLAT -> "flat";
          case LIFT -> "lift";
          case BRAKE ->
              e.point(PointKind.BRAKE).map(p -> where(e, p, speech).strip()).orElse("brake");
        };
    String gear = e.slowing() == Slowing.FLAT ? "" : ", " + ordinal(e.gear());
    return sentenceCase(stopped(Spoken.of(aloud(corner, speech) + ", " + marker + gear)));
  }

  private static String aloud(Corner corner, Speech speech) {
    String name = corner.name().strip();
    return name.isEmpty() || speech.call() == Speech.Call.NUMBERS ? corner.number() : name;
  }

  /** Metres from the apex to the marker, negative. */
  private static double toBrake(CornerEntry e, Speech speech) {
    return speech.apart(
        e.station(PointKind.APEX).orElse(0.0), e.station(PointKind.BRAKE).orElse(0.0));
  }

  private static double pastApex(CornerEntry e, double at, Speech speech) {
    double apex = e.station(PointKind.APEX).or(() -> e.station(PointKind.TURN_IN)).orElse(0.0);
    double past = speech.apart(apex, at);
    // What is done at the apex is said after it.
    return Math.abs(past) < AT_APEX ? 0 : past;
  }

  /** What the driver wrote besides the points, in driving order. */
  private static List<Clause> own(CornerEntry e, Speech speech) {
    List<Action> score = Score.of(speech.lap(), e);
    Speaker speaker = Speaker.of(speech);
    return score.stream()
        .filter(a -> Score.point(a.id()).isEmpty())
        .map(
            a ->
                new Clause(
                    pastApex(e, a.station(), speech),
                    a.cue() == null
                        ? speaker.say(a.said(score)) + " " + fromApex(e, a.station(), speech)
                        : speaker.say(a.line(score))))
        .toList();
  }

  /** The same from some metres past the apex to others. */
  private static List<String> own(CornerEntry e, Speech speech, double from, double to) {
    return own(e, speech).stream()
        .filter(c -> c.past() > from && c.past() <= to)
        .map(Clause::words)
        .toList();
  }

  /** How a point is found where that is written as a cue of its own. */
  private static Optional<String> cue(CornerEntry e, CornerPoint point, Speech speech) {
    Action play = point.play();
    Cue by = play == null ? null : play.cue();
    return by == null
        ? Optional.empty()
        : Optional.of(" " + Speaker.of(speech).say(by.said(Score.of(speech.lap(), e))));
  }

  private static String brake(CornerEntry e, Speech speech) {
    Optional<CornerPoint> marker = e.point(PointKind.BRAKE);
    String where = marker.map(p -> "brake" + where(e, p, speech)).orElse("brake");
    Action play = marker.map(CornerPoint::play).orElse(null);
    Double set = play == null ? null : play.amount();
    double effort = set == null ? e.firstEffort() : set;
    return where + ", " + firmness(effort) + " (" + Math.round(effort * 100) + " %)";
  }

  private static List<String> again(CornerEntry e, Speech speech) {
    return e.again().stream()
        .map(
            a ->
                "brake again "
                    + fromApex(e, a.station(), speech)
                    + ", "
                    + speech.units().speed(a.from())
                    + " to "
                    + speech.units().speed(a.to()))
        .toList();
  }

  private static String gears(CornerEntry e) {
    int down = e.approachGear() - e.gear();
    return down > 0
        ? count(down) + " down to " + ordinal(e.gear())
        : "stay in " + ordinal(e.gear());
  }

  private static Optional<String> throttle(CornerEntry e, Speech speech) {
    if (e.slowing() == Slowing.FLAT || e.point(PointKind.FULL_THROTTLE).isEmpty()) {
      return Optional.empty();
    }
    return Optional.of(
        share(e)
            + fromApex(e, PointKind.FIRST_THROTTLE, speech)
            + ", all of it "
            + fromApex(e, PointKind.FULL_THROTTLE, speech));
  }

  private static String share(CornerEntry e) {
    return e.firstThrottle() < 0.95
        ? Math.round(e.firstThrottle() * 100) + " % throttle "
        : "throttle ";
  }

  private static String withNote(CornerEntry e) {
    return e.note().isBlank() ? "" : " " + stopped(sentenceCase(e.note().strip()));
  }

  /** Everything that the entry holds, phase by phase. */
  public static String full(Corner corner, CornerEntry e, Speech speech) {
    return new Telling(corner, e, speech).tell();
  }

  private static final class Telling {
    private final Corner corner;
    private final CornerEntry e;
    private final Speech speech;
    private final Display units;
    private final String called;
    private final List<String> sentences = new ArrayList<>();

    Telling(Corner corner, CornerEntry e, Speech speech) {
      this.corner = corner;
      this.e = e;
      this.speech = speech;
      this.units = speech.units();
      this.called = speech.corner(corner);
    }

    String tell() {
      approach();
      if (e.slowing() == Slowing.BRAKE) {
        braking();
        shifting();
      }
      turning();
      if (e.slowing() == Slowing.BRAKE) {
        letGo();
      }
      touching();
      kerbs();
      opening();
      written();
      leaving();
      trouble();
      racing();
      feeling();
      riding();
      doubting();
      String text = called + ": " + String.join(" ", sentences);
      return text + withNote(e);
    }

    private void say(List<String> parts) {
      List<String> said = parts.stream().filter(p -> !p.isBlank()).toList();
      if (!said.isEmpty()) {
        sentences.add(sentence(said));
      }
    }

    private String detail(Detail d, String before) {
      String said = e.detail(d).strip();
      return said.isEmpty() ? "" : before + said;
    }

    private void approach() {
      String start =
          switch (e.slowing()) {
            case FLAT -> "flat in " + ordinal(e.approachGear());
            case LIFT -> "lift to " + units.speed(e.minimumSpeed());
            case BRAKE ->
                "arrive at " + units.speed(e.approachSpeed()) + " in " + ordinal(e.approachGear());
          };
      say(
          List.of(
              start,
              detail(Detail.APPROACH_SIDE, "on the "),
              detail(Detail.PREPARE, "from the corner before: ")));
    }

    private void braking() {
      List<String> parts = new ArrayList<>();
      parts.addAll(own(e, speech, Double.NEGATIVE_INFINITY, toBrake(e, speech)));
      parts.add(brake(e, speech));
      chosen(Question.BRAKE_SHAPE).ifPresent(parts::add);
      parts.add(detail(Detail.BRAKING_WHILE, ""));
      parts.add(detail(Detail.BRAKING_SIDE, "on the "));
      parts.add(detail(Detail.BUMPS, "bumps: "));
      parts.add(detail(Detail.FRONT_SHARE, "front brake, % of all: "));
      marker(PointKind.BACK_UP, "if it is hidden").ifPresent(parts::add);
      marker(PointKind.BUILD_UP, "build up from").ifPresent(parts::add);
      marker(PointKind.TARGET, "towards").ifPresent(parts::add);
      chosen(Question.LIGHT).ifPresent(w -> parts.add("shadows as markers " + w));
      say(parts);
    }

    private Optional<String> marker(PointKind kind, String before) {
      return e.point(kind)
          .map(
              p ->
                  before
                      + " "
                      + (p.tie() == null ? units.length(p.station()) : brief(p.tie(), units)));
    }

    private Optional<String> chosen(Question question) {
      return School.chosen(e.schools(), question).map(School::words);
    }

    private void shifting() {
      List<String> parts = new ArrayList<>();
      parts.add(gears(e));
      marker(PointKind.DOWNSHIFT, "the first shift at").ifPresent(parts::add);
      chosen(Question.GEAR).ifPresent(parts::add);
      parts.add(detail(Detail.FOOTWORK, ""));
      say(parts);
    }

    private void turning() {
      List<String> parts = new ArrayList<>();
      e.point(PointKind.TURN_IN).ifPresent(p -> parts.add("turn in" + where(e, p, speech)));
      parts.add(detail(Detail.HANDS, "hands "));
      parts.add(detail(Detail.AIM, "look at "));
      say(parts);
    }

    private void letGo() {
      List<String> parts = new ArrayList<>();
      release(e, speech).ifPresent(parts::add);
      Pedals pedals = e.pedals();
      if (pedals != null) {
        parts.add(
            Math.round(pedals.trail() * e.firstEffort() * 100)
                + " % left at turn-in, "
                + Math.round(pedals.trail() * e.firstEffort() * 50)
                + " % half way");
      }
      chosen(Question.TRAIL).ifPresent(w -> parts.add("brake in the turn: " + w));
      if (e.detail(Detail.COAST).equals("yes")) {
        parts.add("then roll on purpose");
      }
      say(parts);
    }

    private void touching() {
      List<String> parts = new ArrayList<>();
      chosen(Question.LINE).ifPresent(parts::add);
      e.point(PointKind.FIRST_APEX).ifPresent(p -> parts.add("first apex" + where(e, p, speech)));
      parts.add(apex(corner, e));
      parts.add(units.length(Math.max(0, e.apexGap())) + " off the inside edge");
      parts.add("lowest " + units.speed(e.minimumSpeed()));
      chosen(Question.LINKED).ifPresent(parts::add);
      parts.addAll(again(e, speech));
      say(parts);
    }

    private void kerbs() {
      List<String> parts = new ArrayList<>();
      for (KerbUse use : e.kerbs()) {
        StringBuilder part = new StringBuilder();
        part.append(use.part().name().toLowerCase(Locale.ROOT)).append(" kerb: ");
        part.append(use.how().name().toLowerCase(Locale.ROOT).replace('_', ' '));
        Double join = use.join();
        Double leave = use.leave();
        if (join != null) {
          part.append(", join at ").append(units.length(join));
        }
        if (leave != null) {
          part.append(", leave at ").append(units.length(leave));
        }
        if (!use.why().isBlank()) {
          part.append(" (").append(use.why().strip()).append(')');
        }
        parts.add(part.toString());
      }
      chosen(Question.KERBS).ifPresent(w -> parts.add("kerbs: " + w));
      say(parts);
    }

    private void written() {
      say(
          e.slowing() == Slowing.BRAKE
              ? own(e, speech, toBrake(e, speech), Double.POSITIVE_INFINITY)
              : own(e, speech, Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY));
    }

    private void opening() {
      List<String> parts = new ArrayList<>();
      Sentence.throttle(e, speech).ifPresent(parts::add);
      parts.add(detail(Detail.CUE, "when "));
      chosen(Question.ROLL).ifPresent(parts::add);
      chosen(Question.THROTTLE).ifPresent(w -> parts.add("open it " + w));
      Pedals pedals = e.pedals();
      if (pedals != null && pedals.maintain() > 0.05) {
        parts.add("hold it before you open it");
      }
      parts.add(detail(Detail.PATIENCE, ""));
      marker(PointKind.SHORT_SHIFT, "short shift at").ifPresent(parts::add);
      chosen(Question.SHIFT).ifPresent(parts::add);
      say(parts);
    }

    private void leaving() {
      say(
          List.of(
              detail(Detail.EXIT_AIM, "let it run to "),
              detail(Detail.NEXT_NEEDS, "the next corner needs "),
              detail(Detail.LIMIT, "limit: ")));
    }

    private void trouble() {
      say(
          List.of(
              detail(Detail.HAZARD, "mind: "),
              detail(Detail.MISTAKE, "a mistake looks like "),
              detail(Detail.ESCAPE, "if it goes wrong: ")));
    }

    private void racing() {
      say(
          List.of(
              switch (e.detail(Detail.OVERTAKE)) {
                case "pass" -> "pass here";
                case "defend" -> "defend here";
                case "neither" -> "neither pass nor defend";
                default -> "";
              },
              detail(Detail.RACE_LINE, ""),
              detail(Detail.GLANCE, "instruments: "),
              detail(Detail.BREATHE, "breathe ")));
    }

    private void feeling() {
      say(
          List.of(
              detail(Detail.FEELS_IN, "on the way in it feels: "),
              detail(Detail.FEELS_MIDDLE, "in the middle it feels: "),
              detail(Detail.FEELS_OUT, "on the way out it feels: ")));
    }

    private void riding() {
      say(
          List.of(
              detail(Detail.BODY, "body: "),
              detail(Detail.WHEEL_CARE, ""),
              detail(Detail.KNEE, "knee: ")));
    }

    private void doubting() {
      List<String> unsure =
          e.points().stream()
              .filter(p -> p.sure() == Sureness.UNSURE || p.sure() == Sureness.CARRIED)
              .map(p -> p.kind().word())
              .toList();
      if (!unsure.isEmpty()) {
        sentences.add("Not sure of: " + String.join(", ", unsure) + ".");
      }
    }
  }

  private static String sentence(List<String> parts) {
    return stopped(
        sentenceCase(String.join("; ", parts.stream().filter(p -> !p.isBlank()).toList())));
  }

  private static String stopped(String text) {
    return text.endsWith(".") ? text : text + ".";
  }

  /** Marker, gear and one word, for a pocket card. */
  public static String pocket(Corner corner, CornerEntry e, Speech speech) {
    Display units = speech.units();
    String marker =
        switch (e.slowing()) {
          case FLAT -> "flat";
          case LIFT -> "lift";
          case BRAKE -> e.point(PointKind.BRAKE).map(p -> marker(e, p, speech)).orElse("brake");
        };
    String word =
        switch (e.apexType()) {
          case EARLY -> "early";
          case MIDDLE -> corner.apexes().size() > 1 ? "twice" : "in";
          case LATE -> "late";
        };
    return marker + " · " + e.gear() + " · " + word;
  }

  private static String marker(CornerEntry e, CornerPoint p, Speech speech) {
    Tie tie = p.tie();
    return cue(e, p, speech)
        .map(String::strip)
        .orElseGet(
            () -> tie == null ? speech.units().length(p.station()) : brief(tie, speech.units()));
  }

  /** "100 board + 8 m". */
  public static String brief(Tie tie, Display units) {
    String name = tie.spoken().replaceFirst("^the ", "");
    long past = Math.round(tie.past());
    return past == 0 ? name : name + (past > 0 ? " + " : " − ") + units.length(tie.past());
  }

  private static String where(CornerEntry e, CornerPoint point, Speech speech) {
    return cue(e, point, speech).orElseGet(() -> place(point, speech.units()));
  }

  private static String place(CornerPoint point, Display units) {
    Tie tie = point.tie();
    return tie == null ? " at " + units.length(point.station()) : " " + near(tie, units);
  }

  private static String near(Tie tie, Display units) {
    if (Math.abs(tie.past()) < 0.75) {
      return "at " + tie.spoken();
    }
    return units.length(tie.past()) + (tie.past() > 0 ? " past " : " before ") + tie.spoken();
  }

  private static String firmness(double effort) {
    return effort >= 0.75 ? "hard" : effort >= 0.45 ? "firm" : effort >= 0.2 ? "light" : "a touch";
  }

  private static Optional<String> release(CornerEntry e, Speech speech) {
    Optional<Double> last = e.station(PointKind.APEX);
    Optional<Double> release = e.station(PointKind.RELEASE);
    Optional<Double> first = e.station(PointKind.FIRST_APEX);
    boolean twice =
        first.isPresent() && release.isPresent() && speech.apart(first.get(), release.get()) < 8;
    Optional<Double> apex = twice ? first : last;
    if (apex.isEmpty() || release.isEmpty()) {
      return Optional.empty();
    }
    double before = speech.apart(release.get(), apex.get());
    return Optional.of(
        Math.abs(before) < 8
            ? "bleed it to the " + (twice ? "first apex" : "apex")
            : before > 0
                ? "off the brake "
                    + speech.units().length(before)
                    + " before the "
                    + (twice ? "first apex" : "apex")
                : "off the brake past the apex");
  }

  private static String apex(Corner corner, CornerEntry e) {
    String type =
        e.apexType() == ApexType.LATE
            ? "late apex"
            : e.apexType() == ApexType.EARLY ? "early apex" : "apex in the middle";
    String twice = corner.apexes().size() > 1 ? "two apexes, the second decides, " : "";
    String tie =
        e.point(PointKind.APEX)
            .flatMap(p -> Optional.ofNullable(p.tie()))
            .map(t -> " at " + t.spoken())
            .orElse("");
    return twice + type + tie;
  }

  private static String fromApex(CornerEntry e, PointKind kind, Speech speech) {
    return e.station(kind).map(at -> fromApex(e, at, speech)).orElse("");
  }

  private static String fromApex(CornerEntry e, double at, Speech speech) {
    Optional<Double> apex = e.station(PointKind.APEX);
    if (apex.isEmpty()) {
      return "";
    }
    double past = speech.apart(apex.get(), at);
    // Between two apexes the nearer one is meant.
    Optional<Double> first = e.station(PointKind.FIRST_APEX).map(f -> speech.apart(f, at));
    boolean nearFirst = first.isPresent() && Math.abs(first.get()) < Math.abs(past);
    double from = nearFirst ? first.get() : past;
    String apexes = nearFirst ? "the first apex" : first.isPresent() ? "the second" : "it";
    return Math.abs(from) < AT_APEX
        ? "at " + (first.isPresent() ? apexes : "the apex")
        : speech.units().length(from) + (from > 0 ? " past " : " before ") + apexes;
  }

  private static String ordinal(int gear) {
    return gear >= 0 && gear < ORDINALS.length ? ORDINALS[gear] : "gear " + gear;
  }

  private static String count(int n) {
    return n < COUNTS.length ? COUNTS[n] : Integer.toString(n);
  }

  private static String sentenceCase(String text) {
    return text.isEmpty()
        ? text
        : text.substring(0, 1).toUpperCase(Locale.ROOT) + text.substring(1);
  }
}
