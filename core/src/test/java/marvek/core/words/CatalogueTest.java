package marvek.core.words;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import marvek.core.debrief.Proposal;
import marvek.core.debrief.Sections;
import marvek.core.debrief.habits.Habit;
import marvek.core.debrief.habits.Habits;
import marvek.core.entry.DayKind;
import marvek.core.entry.Detail;
import marvek.core.entry.PointKind;
import marvek.core.entry.Slowing;
import marvek.core.logger.Mistake;
import marvek.core.marker.Landmark;
import marvek.core.marker.LandmarkKind;
import marvek.core.review.checks.Checks;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.ActionKind;
import marvek.core.score.CueKind;
import marvek.core.score.Sureness;
import marvek.core.session.Promise;
import marvek.core.survey.Edge;
import marvek.core.survey.Kerb;
import marvek.core.survey.ZoneKind;
import marvek.core.technique.Question;
import marvek.core.technique.School;
import marvek.core.telemetry.Channel;
import marvek.core.telemetry.LapKind;
import marvek.core.units.Display;
import marvek.core.vehicle.VehicleClasses;
import org.junit.jupiter.api.Test;

/** The catalogue has words for all that can be said, and none that nobody says. */
class CatalogueTest {
  private static final Path SOURCES = Path.of("src/main/java/marvek/core");

  /** The first text in the making of a refusal: its key. */
  private static final Pattern REFUSED =
      Pattern.compile(
          "(?:Refusal\\.of|Problem\\.(?:bad|none|notFound|forbidden|full|failed|unauthorised|conflict))"
              + "\\((?:[^\";]{0,120},)?\\s*\"([^\"]*)\"");

  private static final Pattern NAMED = Pattern.compile("\"([a-z]+(?:\\.[A-Za-z_]+)+)\"");

  private static List<Path> sources() throws IOException {
    List<Path> out = new ArrayList<>();
    for (Path root : List.of(SOURCES, Path.of("../server/src/main/java/marvek/server"))) {
      try (Stream<Path> all = Files.walk(root)) {
        out.addAll(all.filter(f -> f.toString().endsWith(".java")).sorted().toList());
      }
    }
    return out;
  }

  private static Stream<String> named() throws IOException {
    List<String> found = new ArrayList<>();
    for (Path p : sources()) {
      Matcher m = NAMED.matcher(Files.readString(p));
      while (m.find()) {
        found.add(m.group(1));
      }
    }
    return found.stream();
  }

  /** Keys that are made of a name: those of habits, points, verdicts and the like. */
  private static Set<String> made() {
    Set<String> out = new TreeSet<>();
    for (Habit h : Habits.all()) {
      out.add(h.words().key());
      out.add(h.cure().key());
      out.add(h.measure(1).key());
    }
    Arrays.stream(PointKind.values()).forEach(k -> out.add(k.said().key()));
    Arrays.stream(Sections.Phase.values()).forEach(p -> out.add(p.said().key()));
    Arrays.stream(Proposal.Strength.values()).forEach(s -> out.add(s.said().key()));
    Arrays.stream(Promise.Verdict.values()).forEach(v -> out.add("promise." + v));
    out.add("promise.NOT_KEPT.costs");
    out.add("promise.CANNOT_BE_TOLD.some");
    Arrays.stream(Kerb.Part.values()).forEach(p -> out.add("kerb.part." + p));
    Arrays.stream(Kerb.Verdict.values()).forEach(v -> out.add("kerb.verdict." + v));
    Arrays.stream(Slowing.values()).forEach(w -> out.add("slowing." + w));
    Arrays.stream(Sureness.values()).forEach(w -> out.add(w.said().key()));
    Arrays.stream(Detail.values()).forEach(d -> out.add(d.said().key()));
    Arrays.stream(Question.values()).forEach(q -> out.add(q.said().key()));
    Arrays.stream(School.values()).forEach(w -> out.add(w.said().key()));
    Stream.of("before", "in", "exit").forEach(w -> out.add("hazard.zone." + w));
    Stream.of("early", "held", "turning")
        .forEach(how -> out.add("check.RELEASE_AGAINST_CHOICE." + how));
    Stream.of(
            "check.PEDALS_AGAINST_CHOICE.hands",
            "check.PEDALS_AGAINST_CHOICE.settled",
            "check.PEDALS_AGAINST_CHOICE.lift",
            "check.PEDALS_AGAINST_CHOICE.opened",
            "check.PEDALS_AGAINST_CHOICE.roll",
            "check.PEDALS_AGAINST_CHOICE.slowed")
        .forEach(out::add);
    Stream.of("check.OVER_REV.gear", "check.OVER_REV.shift").forEach(out::add);
    Stream.of("check.LIMIT_AT_EXIT.rules", "check.LIMIT_AT_EXIT.cost").forEach(out::add);
    Arrays.stream(Edge.Never.values()).forEach(n -> out.add(n.said().key()));
    Arrays.stream(Edge.Risk.values()).forEach(r -> out.add(r.said().key()));
    Arrays.stream(ActionKind.values()).forEach(k -> out.add(k.said().key()));
    Arrays.stream(CueKind.values()).forEach(k -> out.add(k.said().key()));
    Arrays.stream(Channel.values()).forEach(c -> out.add(c.said().key()));
    Arrays.stream(ZoneKind.values()).forEach(z -> out.add(z.said().key()));
    Arrays.stream(DayKind.values()).forEach(d -> out.add(d.said().key()));
    Arrays.stream(LapKind.values()).forEach(k -> out.add(k.said().key()));
    Arrays.stream(LandmarkKind.values()).forEach(k -> out.add(k.said().key()));
    for (Detail d : Detail.values()) {
      d.choices().forEach(c -> out.add(d.told(c).key()));
    }
    VehicleClasses.all().forEach(c -> out.addAll(List.of(c.name().key(), c.about().key())));
    Arrays.stream(Mistake.values()).forEach(m -> out.add(m.said().key()));
    Arrays.stream(Landmark.Permanence.values()).forEach(p -> out.add(p.said().key()));
    out.add("nothing");
    out.add("stored");
    return out;
  }

  @Test
  void allThatIsSaidHasWordsAndNothingElseHas() throws IOException {
    Set<String> said = made();
    Set<String> keys = Catalogue.ENGLISH.keys();
    assertThat(keys).containsAll(said);
    // A refusal is named once, and has words for what is wrong and for what to do.
    named()
        .filter(n -> n.startsWith("refusal.") && keys.contains(n + ".what"))
        .forEach(n -> said.addAll(List.of(n + ".what", n + ".remedy")));
    // What begins a key made of more is no key itself.
    named()
        .filter(n -> keys.stream().anyMatch(k -> k.split("\\.")[0].equals(n.split("\\.")[0])))
        .filter(n -> !n.endsWith(".pdf") && keys.stream().noneMatch(k -> k.startsWith(n + ".")))
        .forEach(said::add);
    keys.stream()
        .filter(k -> Checks.all().stream().anyMatch(c -> k.equals("check." + c.id())))
        .forEach(said::add);
    assertThat(said).containsExactlyInAnyOrderElementsOf(keys);
  }

  /** Every refusal is made of a key that has words for both: one without would be a failure. */
  @Test
  void everyRefusalHasWords() throws IOException {
    List<String> keys = new ArrayList<>();
    for (Path p : sources()) {
      Matcher m = REFUSED.matcher(Files.readString(p));
      while (m.find()) {
        keys.add(m.group(1));
      }
    }
    assertThat(keys).hasSizeGreaterThan(250);
    // For what there is none of, one remedy does.
    for (String k : keys) {
      List<String> words =
          k.startsWith("refusal.none.") ? List.of(k) : List.of(k + ".what", k + ".remedy");
      assertThat(Catalogue.ENGLISH.keys().containsAll(words)).as("words for \"%s\"", k).isTrue();
    }
  }

  @Test
  void everyPatternCanBeSaid() {
    Value[] any = new Value[9];
    Arrays.fill(any, Value.count(2));
    for (String key : Catalogue.ENGLISH.keys()) {
      String words = Speaker.PLAIN.say(Said.of(key, any));
      assertThat(words).as(key).doesNotContain("{", "}");
      assertThat(words.isBlank()).as(key).isEqualTo(key.equals("nothing"));
    }
  }

  @Test
  void valuesComeInTheDriversUnitsAndNames() {
    Speaker miles =
        Speaker.of(
            new Speech(new Display(Display.Speed.MPH, Display.Length.FT), Speech.Call.NAMES));
    Said late = Said.of("check.CANNOT_BE_MADE", Value.length(10));
    assertThat(Speaker.PLAIN.say(late))
        .isEqualTo("From here the corner cannot be made: brake 10 m sooner at least.");
    assertThat(miles.say(late)).contains("brake 33 ft sooner");
    assertThat(miles.say(Said.of("plan.too_fast", Value.speed(10)))).contains("by 22 mph");
    Said corner = Said.of("day.called", new Value.CornerName("7", "Gantry"));
    assertThat(miles.say(corner)).isEqualTo("Gantry");
    assertThat(Speaker.PLAIN.say(corner)).isEqualTo("7");
  }

  private static Habit habit(String id) {
    return Habits.all().stream().filter(h -> h.id().equals(id)).findFirst().orElseThrow();
  }

  @Test
  void oneIsToldFromManyAndOneOfAFewFromTheOthers() {
    Habit eased = habit("THROTTLE_THEN_LIFT");
    assertThat(Speaker.PLAIN.say(eased.measure(1))).isEqualTo("once eased again");
    assertThat(Speaker.PLAIN.say(eased.measure(3))).isEqualTo("3 times eased again");
    Habit before = habit("FROM_THE_CORNER_BEFORE");
    assertThat(Speaker.PLAIN.say(before.measure(1.26)))
        .isEqualTo("1.3 m too far inside on arrival");
    assertThat(Speaker.PLAIN.say(before.measure(-1.26)))
        .isEqualTo("1.3 m too far outside on arrival");
    assertThat(Speaker.PLAIN.say(habit("GEAR").measure(-1))).isEqualTo("-1 gear");
    assertThat(Speaker.PLAIN.say(habit("GEAR").measure(2))).isEqualTo("+2 gears");
  }

  @Test
  void markedWordsShowWhatComesFromTheCatalogue() {
    Speaker marked = Speaker.of(Speech.PLAIN.in(Catalogue.MARKED));
    assertThat(marked.say(Said.of("plan.order", PointKind.EXIT.said().in(), Value.own("apex"))))
        .isEqualTo("‹‹exit› comes before apex.›");
  }

  @Test
  void aKeyWithoutWordsIsRefused() {
    assertThatThrownBy(() -> Speaker.PLAIN.say(Said.of("no.such.key")))
        .isInstanceOf(IllegalArgumentException.class)
        .hasMessageContaining("no.such.key");
  }
}
