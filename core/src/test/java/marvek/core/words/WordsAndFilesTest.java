package marvek.core.words;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.networknt.schema.JsonSchema;
import com.networknt.schema.JsonSchemaFactory;
import com.networknt.schema.SpecVersion;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.OwnPace;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.ReferenceFile;
import marvek.core.entry.RoadUse;
import marvek.core.entry.Score;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.Example;
import marvek.core.fixtures.RandomRoads;
import marvek.core.fixtures.RandomScores;
import marvek.core.fixtures.Refused;
import marvek.core.lap.Driving;
import marvek.core.line.Gate;
import marvek.core.marker.Landmark;
import marvek.core.marker.Tie;
import marvek.core.plan.ComputedLap;
import marvek.core.refusal.Refusal;
import marvek.core.score.Action;
import marvek.core.score.ActionBuilder;
import marvek.core.score.ActionKind;
import marvek.core.score.Cue;
import marvek.core.score.CueKind;
import marvek.core.score.Sureness;
import marvek.core.units.Display;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

class WordsAndFilesTest {
  private static Example gt;

  @BeforeAll
  static void draft() {
    gt = Example.of("cup-gt");
  }

  private static CornerEntry placed(double past) {
    CornerEntry e = gt.first();
    Landmark board =
        gt.boards.stream()
            .filter(l -> l.corner().equals("c1") && l.label().equals("100"))
            .findFirst()
            .orElseThrow();
    CornerPoint brake =
        new CornerPoint(
            PointKind.BRAKE,
            board.station() + past,
            Tie.to(gt.computed.road(), board, board.station() + past));
    List<CornerPoint> points =
        e.points().stream().map(p -> p.kind() == PointKind.BRAKE ? brake : p).toList();
    return Example.with(e, points, e.gear(), "");
  }

  private static ReferenceContent with(CornerEntry first) {
    return new ReferenceContent(
        java.util.stream.Stream.concat(
                java.util.stream.Stream.of(first), gt.draft.corners().stream().skip(1))
            .toList());
  }

  @Test
  void comparesAsADriverWouldSayIt() {
    List<Comparison.Difference> found =
        Comparison.between(
            gt.survey.corners(),
            gt.computed.road().length(),
            with(placed(14)),
            with(placed(8)),
            Speech.PLAIN);
    assertThat(found)
        .extracting(Comparison.Difference::words)
        .containsExactly("T1 braking 6 m sooner, from the 100 board + 14 m to + 8 m");
    assertThat(
            Comparison.between(
                gt.survey.corners(), gt.computed.road().length(), gt.draft, gt.draft, Speech.PLAIN))
        .isEmpty();
  }

  /** Lengths are told in the driver's own units wherever they stand. */
  @Test
  void whatDiffersIsToldInTheDriversUnits() {
    CornerEntry e = gt.first();
    CornerEntry off = e.copy().apexOff(e.apexOff() + 1.5).done();
    ReferenceContent passing =
        new ReferenceContent(
            with(off).corners(),
            List.of(),
            null,
            new RoadUse(List.of(), List.of(new Gate("g", 100, true, 2, 0.5))));
    assertThat(
            Comparison.between(
                gt.survey.corners(),
                gt.computed.road().length(),
                gt.draft,
                passing,
                new Speech(new Display(Display.Speed.MPH, Display.Length.FT), Speech.Call.NUMBERS)))
        .extracting(Comparison.Difference::words)
        .containsExactly(
            "T1 apex 4.9 ft further off the inside",
            "The line passes 6.6 ft from the left edge at 328 ft");
  }

  @Test
  void saysGearsNotesAndMissingCorners() {
    CornerEntry e = gt.first();
    CornerEntry other = Example.with(e, e.points(), e.gear() + 1, "mind the drain");
    assertThat(
            Comparison.between(
                gt.survey.corners(),
                gt.computed.road().length(),
                gt.draft,
                with(other),
                Speech.PLAIN))
        .extracting(Comparison.Difference::words)
        .containsExactly(
            "T1 gear " + other.gear() + " instead of " + e.gear(), "T1 note: “mind the drain”");
    ReferenceContent three = new ReferenceContent(gt.draft.corners().stream().skip(1).toList());
    assertThat(
            Comparison.between(
                gt.survey.corners(), gt.computed.road().length(), gt.draft, three, Speech.PLAIN))
        .extracting(Comparison.Difference::words)
        .containsExactly("T1 left out");
  }

  @Test
  void whatIsWrittenOtherwiseIsSaidActionByAction() {
    CornerEntry e = gt.first();
    double at = e.station(PointKind.BRAKE).orElseThrow() - 50;
    Action lift = Action.of("l", ActionKind.LIFT, at, 0.4).found(Cue.of(CueKind.FEEL, 0));
    CornerEntry lifted = Score.with(e, lift);
    CornerEntry more = Score.with(e, lift.amounting(0.6));
    Action brake =
        Score.of(gt.computed.road(), e).stream()
            .filter(a -> a.id().equals("brake"))
            .findFirst()
            .orElseThrow();
    CornerEntry pressed = Score.with(e, brake.amounting(0.55));
    assertThat(said(e, lifted)).containsExactly("T1 lift to 40 % by feel");
    assertThat(said(lifted, e)).containsExactly("T1 no longer: lift to 40 % by feel");
    assertThat(said(lifted, more))
        .containsExactly("T1 lift to 60 % by feel, instead of: lift to 40 % by feel");
    assertThat(said(e, pressed)).hasSize(1);
    assertThat(said(e, pressed).get(0)).contains("brake hard to 55 %").contains("instead of");
    assertThat(said(more, more)).isEmpty();
  }

  private static List<String> said(CornerEntry before, CornerEntry after) {
    return Comparison.between(
            gt.survey.corners(),
            gt.computed.road().length(),
            with(before),
            with(after),
            Speech.PLAIN)
        .stream()
        .map(Comparison.Difference::words)
        .toList();
  }

  @Test
  void aTableKeepsWhatItHasNoColumnFor() {
    CornerEntry e = gt.first();
    double at = e.station(PointKind.BRAKE).orElseThrow();
    CornerEntry lifted = Score.with(e, Action.of("l", ActionKind.LIFT, at - 50, 0.4));
    Action cued = Action.of("brake", ActionKind.BRAKE, at, 0.55).found(Cue.of(CueKind.LIMITER, 2));
    ReferenceContent own = with(Score.with(lifted, cued));
    String text = ReferenceCsv.write(gt.survey.corners(), own);
    double length = gt.computed.road().length();
    CornerEntry back = ReferenceCsv.read(text, gt.survey.corners(), length, own).corners().get(0);
    assertThat(back.actions()).isEqualTo(lifted.actions());
    assertThat(back.point(PointKind.BRAKE).orElseThrow().play()).isEqualTo(cued);
    // A marker that the table puts elsewhere is not found by its old cue any more.
    String moved =
        text.replace(
            String.format(Locale.ROOT, "%.1f", at), String.format(Locale.ROOT, "%.1f", at - 9));
    Action there =
        ReferenceCsv.read(moved, gt.survey.corners(), length, own)
            .corners()
            .get(0)
            .point(PointKind.BRAKE)
            .orElseThrow()
            .play();
    assertThat(there).isNotNull();
    assertThat(there.cue()).isNull();
    assertThat(there.amount()).isEqualTo(0.55);
  }

  @Test
  void anotherPaceIsSaid() {
    OwnPace pace = new OwnPace(new Driving(0.9, 0.85, 1, 0.3), List.of());
    ReferenceContent paced = new ReferenceContent(gt.draft.corners(), gt.draft.variants(), pace);
    OwnPace slower =
        new OwnPace(pace.driving(), List.of(new OwnPace.InCorner("c1", 0.97, OwnPace.Why.WALL)));
    assertThat(
            Comparison.between(
                gt.survey.corners(), gt.computed.road().length(), gt.draft, paced, Speech.PLAIN))
        .extracting(Comparison.Difference::words)
        .containsExactly(
            "Own pace: braking 90 instead of 100 %, turning 85 instead of 100 %, traction 100 %,"
                + " margin 0.30 s instead of 0.15 s");
    assertThat(
            Comparison.between(
                gt.survey.corners(),
                gt.computed.road().length(),
                paced,
                new ReferenceContent(gt.draft.corners(), gt.draft.variants(), slower),
                Speech.PLAIN))
        .extracting(Comparison.Difference::words)
        .containsExactly("Own pace differs in other corners");
  }

  @Test
  void theSentenceSpeaksTheDriversUnits() {
    CornerEntry e = placed(8);
    String metric = Sentence.line(gt.survey.corners().get(0), e, Speech.PLAIN);
    assertThat(metric).startsWith("Brake 8 m past the 100 board, hard (").endsWith(".");
    assertThat(metric).contains("km/h").contains("down to");
    String imperial =
        Sentence.line(
            gt.survey.corners().get(0),
            e,
            new Speech(new Display(Display.Speed.MPH, Display.Length.FT), Speech.Call.NUMBERS));
    assertThat(imperial).startsWith("Brake 26 ft past the 100 board").contains("mph");
    assertThat(Sentence.line(gt.survey.corners().get(0), placed(0), Speech.PLAIN))
        .startsWith("Brake at the 100 board");
    assertThat(Sentence.pocket(gt.survey.corners().get(0), placed(-5), Speech.PLAIN))
        .startsWith("100 board − 5 m · " + e.gear() + " · ");
  }

  @Test
  void theSentenceCountsFromTheNearestApexAndOverTheLine() {
    CornerEntry e = gt.first().copy().actions(List.of()).done();
    double length = gt.computed.road().length();
    CornerEntry across =
        Example.with(
            e,
            List.of(
                new CornerPoint(PointKind.RELEASE, length - 6, null),
                new CornerPoint(PointKind.FIRST_THROTTLE, length - 4, null),
                new CornerPoint(PointKind.FIRST_APEX, 6, null),
                new CornerPoint(PointKind.APEX, 90, null),
                new CornerPoint(PointKind.FULL_THROTTLE, 112, null)),
            e.gear(),
            "");
    String line = Sentence.line(gt.survey.corners().get(0), across, Speech.PLAIN.on(length));
    assertThat(line)
        .contains("off the brake 12 m before the first apex")
        .contains("throttle 10 m before the first apex, all of it 22 m past the second");
  }

  @Test
  void jsonComesBackTheSameAndFitsItsSchema() throws IOException {
    ReferenceFile file =
        new ReferenceFile(
            ReferenceFile.FORMAT,
            "Example",
            ReferenceFile.key("Ring", 1, gt.computed.road().length(), gt.survey.corners()),
            "GT",
            gt.computed.vehicle(),
            3,
            "because",
            "2026-05-16T10:00:00Z",
            new ReferenceContent(
                written(gt.draft.corners()),
                gt.draft.variants(),
                new OwnPace(
                    new Driving(0.9, 0.85, 1, 0.3),
                    List.of(new OwnPace.InCorner("c1", 0.97, OwnPace.Why.WALL)))));
    byte[] bytes = file.write();
    assertThat(ReferenceFile.read(bytes)).isEqualTo(file);
    // An independent validator holds the file against the published schema.
    JsonSchema schema;
    try (InputStream in =
        ReferenceFile.class.getResourceAsStream("/marvek/reference-2.schema.json")) {
      schema = JsonSchemaFactory.getInstance(SpecVersion.VersionFlag.V202012).getSchema(in);
    }
    ObjectMapper json = new ObjectMapper();
    assertThat(schema.validate(json.readTree(bytes))).isEmpty();
    String broken = new String(bytes, UTF_8).replace("\"BRAKE\"", "\"STOMP\"");
    assertThat(schema.validate(json.readTree(broken))).isNotEmpty();
    String much = new String(bytes, UTF_8).replace("\"braking\" : 0.9", "\"braking\" : 1.9");
    assertThat(schema.validate(json.readTree(much))).isNotEmpty();
  }

  /** The corners with every kind of action in the first, and its marker found by a cue. */
  private static List<CornerEntry> written(List<CornerEntry> corners) {
    List<CornerEntry> out = new ArrayList<>(corners);
    CornerEntry first = out.get(0);
    for (ActionKind kind : ActionKind.values()) {
      Action a =
          ActionBuilder.builder(Action.of("own-" + kind, kind, 300 + kind.ordinal(), 0.4))
              .cue(Cue.of(CueKind.OUT_OF_VIEW, "l1", "the end of the barrier", 0))
              .together(Cue.after("brake", 0.5))
              .backUp(Cue.of(CueKind.FEEL, 0))
              .until(400.0)
              .gear(2)
              .sure(Sureness.FAIRLY)
              .note("as told")
              .build();
      first = Score.with(first, a);
    }
    Action marker =
        Action.of("brake", ActionKind.BRAKE, first.station(PointKind.BRAKE).orElseThrow(), 0.6);
    out.set(0, Score.with(first, marker.found(Cue.of(CueKind.LIMITER, 2))));
    return out;
  }

  @Test
  void whatADriverWroteIsSaidInDrivingOrder() {
    CornerEntry e =
        gt.draft.corners().stream()
            .filter(c -> c.point(PointKind.BRAKE).isPresent())
            .findFirst()
            .orElseThrow();
    double brake = e.station(PointKind.BRAKE).orElseThrow();
    double apex = e.station(PointKind.APEX).orElseThrow();
    CornerEntry written = e;
    for (Action a :
        List.of(
            Action.of("on", ActionKind.FULL, apex + 60, null).found(Cue.of(CueKind.SETTLED, 0)),
            Action.of("l", ActionKind.LIFT, brake - 60, 0.4)
                .found(Cue.of(CueKind.SHARE, "w", "the wall", 0.5)),
            Action.of("bleed", ActionKind.EASE, (brake + apex) / 2, 0.3))) {
      written = Score.with(written, a);
    }
    Action marker =
        Action.of("brake", ActionKind.BRAKE, brake, 0.55)
            .found(Cue.of(CueKind.OUT_OF_VIEW, "b", "the end of the barrier", 0));
    written = Score.with(written, marker);
    Corner corner = gt.computed.corners().get(gt.computed.indexOf(e.corner()));
    Speech speech = Speech.PLAIN.on(gt.computed.road().length());
    for (String told :
        List.of(Sentence.line(corner, written, speech), Sentence.full(corner, written, speech))) {
      assertThat(told.toLowerCase(Locale.ROOT))
          .containsSubsequence(
              "lift to 40 % half-way along the wall",
              "brake when the end of the barrier leaves the view, firm (55 %)",
              "ease the brake to 30 %",
              "all the throttle once it has settled");
    }
  }

  /** Metres past the apex that a sentence tells, in the order in which it tells them. */
  private static List<Integer> told(String line) {
    List<Integer> out = new ArrayList<>();
    Matcher m = Pattern.compile("(\\d+) m (before|past) (it|the apex)|at the apex").matcher(line);
    while (m.find()) {
      String metres = m.group(1);
      int by = metres == null ? 0 : Integer.parseInt(metres);
      out.add("before".equals(m.group(2)) ? -by : by);
    }
    return out;
  }

  @Test
  void scoresOfAnyRoadAreSaidInDrivingOrderAndNameTheApexFirst() {
    int said = 0;
    for (long seed : new long[] {61, 62, 63, 64}) {
      ComputedLap lap = Drives.computed(RandomRoads.of(seed, 250), "cup-gt");
      for (CornerEntry e : RandomScores.of(lap, seed)) {
        if (e.actions().isEmpty() || e.point(PointKind.FIRST_APEX).isPresent()) {
          continue;
        }
        Corner corner = lap.corners().get(lap.indexOf(e.corner()));
        Speech speech = Speech.PLAIN.on(lap.road().length());
        String line = Sentence.line(corner, e, speech);
        List<Integer> order = told(line);
        assertThat(order).as(line).isSorted();
        said += order.size();
        int it = Math.max(line.indexOf(" before it"), line.indexOf(" past it"));
        assertThat(line.indexOf("apex")).as(line).isBetween(0, it < 0 ? line.length() : it);
      }
    }
    assertThat(said).isGreaterThan(60);
  }

  @Test
  void aFileOfBeforeThereWereActionsIsRead() throws IOException {
    ReferenceContent plain =
        new ReferenceContent(
            gt.draft.corners().stream().map(e -> e.copy().actions(List.of()).done()).toList());
    ReferenceFile file =
        new ReferenceFile(
            ReferenceFile.FORMAT,
            "Ring",
            ReferenceFile.key("Ring", 1, gt.computed.road().length(), gt.survey.corners()),
            "GT",
            gt.computed.vehicle(),
            0,
            "",
            null,
            plain);
    ObjectMapper json = new ObjectMapper();
    ObjectNode old = (ObjectNode) json.readTree(file.write());
    old.put("format", "marvek-reference/1");
    for (JsonNode corner : old.path("content").path("corners")) {
      ((ObjectNode) corner).remove("actions");
      corner.path("points").forEach(p -> ((ObjectNode) p).remove("play"));
    }
    JsonSchema schema;
    try (InputStream in =
        ReferenceFile.class.getResourceAsStream("/marvek/reference-1.schema.json")) {
      schema = JsonSchemaFactory.getInstance(SpecVersion.VersionFlag.V202012).getSchema(in);
    }
    assertThat(schema.validate(old)).isEmpty();
    assertThat(ReferenceFile.read(json.writeValueAsBytes(old)).content()).isEqualTo(plain);
  }

  @Test
  void brokenJsonSaysWhere() {
    assertThatThrownBy(() -> ReferenceFile.read("{\"format\": ".getBytes(UTF_8)))
        .isInstanceOf(Refusal.class)
        .extracting(Refused::where)
        .asString()
        .startsWith("line 1");
    assertThatThrownBy(() -> ReferenceFile.read("{\"format\":\"other\"}".getBytes(UTF_8)))
        .satisfies(e -> assertThat(Refused.what(e)).contains("not a reference file"));
    assertThatThrownBy(
            () ->
                ReferenceFile.read(
                    "{\"format\":\"marvek-reference/1\",\"revision\":\"x\"}".getBytes(UTF_8)))
        .isInstanceOf(Refusal.class)
        .extracting(Refused::where)
        .isEqualTo("revision");
  }

  @Test
  void csvComesBackToATenth() {
    String text = ReferenceCsv.write(gt.survey.corners(), gt.draft);
    assertThat(text.lines().findFirst()).contains(String.join(",", ReferenceCsv.HEADER));
    ReferenceContent back =
        ReferenceCsv.read(text, gt.survey.corners(), gt.computed.road().length(), gt.draft);
    for (int c = 0; c < back.corners().size(); c++) {
      CornerEntry a = gt.draft.corners().get(c);
      CornerEntry b = back.corners().get(c);
      assertThat(b.gear()).isEqualTo(a.gear());
      assertThat(b.firstEffort()).isCloseTo(a.firstEffort(), within(0.001));
      assertThat(b.points()).hasSameSizeAs(a.points());
      for (CornerPoint point : a.points()) {
        assertThat(b.station(point.kind()).orElseThrow()).isCloseTo(point.station(), within(0.051));
      }
    }
  }

  @Test
  void brokenCsvSaysRowAndColumn() {
    String text = ReferenceCsv.write(gt.survey.corners(), gt.draft);
    String[] lines = text.split("\r?\n");
    String wrong = lines[0] + "\n" + lines[1].replaceFirst(",brake,", ",stamp,");
    assertProblem(wrong, "row 2, column slowing");
    assertProblem(lines[0] + "\n" + lines[1] + "\n" + lines[1], "row 3, column corner");
    assertProblem(lines[0] + "\n" + lines[1].replaceFirst("^1,", "77,"), "row 2, column corner");
    assertThatThrownBy(
            () ->
                ReferenceCsv.read(
                    lines[0], gt.survey.corners(), gt.computed.road().length(), gt.draft))
        .satisfies(e -> assertThat(Refused.what(e)).contains("no rows"));
  }

  private static void assertProblem(String text, String where) {
    assertThatThrownBy(
            () ->
                ReferenceCsv.read(text, gt.survey.corners(), gt.computed.road().length(), gt.draft))
        .isInstanceOf(Refusal.class)
        .extracting(Refused::where)
        .isEqualTo(where);
  }
}
