package marvek.core.words;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.StringReader;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import marvek.core.circuit.CircuitReading;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.Score;
import marvek.core.entry.Slowing;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.fixtures.Refused;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.refusal.Refusal;
import marvek.core.score.Action;
import marvek.core.score.ActionBuilder;
import marvek.core.score.ActionKind;
import marvek.core.score.Cue;
import marvek.core.score.CueKind;
import marvek.core.survey.Things;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVRecord;
import org.junit.jupiter.api.Test;

class ScoreCsvTest {
  private static final CircuitReading ROAD = RandomRoads.of(5504, 400);
  private static final ComputedLap LAP = Drives.computed(ROAD, "cup-gt");
  private static final double LENGTH = LAP.road().length();
  private static final ReferenceContent DRAFT = draft();

  private static ReferenceContent draft() {
    Things boards = new Things(Drafter.boards(LAP), List.of(), List.of(), List.of(), List.of());
    ReferenceContent draft = Drafter.draft(LAP, boards);
    List<CornerEntry> corners = new ArrayList<>(draft.corners());
    CornerEntry first = corners.get(0);
    Cue after = Cue.after("turn-in", 0.8);
    Action dab = Action.of("dab", ActionKind.BRAKE, 120.26, 0.15).found(after).until(null);
    corners.set(0, first.copy().actions(with(first.actions(), dab)).done());
    return draft.with(corners);
  }

  private static List<Action> with(List<Action> actions, Action more) {
    List<Action> out = new ArrayList<>(actions);
    out.add(more);
    return out;
  }

  private static String text() {
    return ScoreCsv.write(ROAD.corners(), DRAFT, LENGTH);
  }

  @Test
  void aRowIsAnActionAndAnotherLibraryReadsIt() throws Exception {
    List<CSVRecord> rows =
        CSVFormat.RFC4180
            .builder()
            .setHeader()
            .setSkipHeaderRecord(true)
            .get()
            .parse(new StringReader(text()))
            .getRecords();
    int actions = DRAFT.corners().stream().mapToInt(e -> Score.of(LENGTH, e).size()).sum();
    assertThat(rows).hasSize(actions);
    assertThat(text().lines().findFirst().orElseThrow())
        .startsWith("corner,id,kind,station_m,cue,number,amount,unit,sure,note");
    CSVRecord dab = rows.stream().filter(r -> r.get("id").equals("dab")).findFirst().orElseThrow();
    assertThat(dab.get("cue")).isEqualTo("SECONDS  turn-in");
    assertThat(dab.get("number")).isEqualTo("0.800");
    assertThat(dab.get("amount")).isEqualTo("15.0");
    assertThat(dab.get("unit")).isEqualTo("%");
  }

  @Test
  void whatIsLookedAtComesBackFromATableThatWasEdited() {
    CornerEntry first = DRAFT.corners().get(0);
    List<Action> looks = new ArrayList<>();
    for (Cue target : List.of(Cue.where("apex"), Cue.of(CueKind.BESIDE, "post", "post", 0))) {
      looks.add(
          ActionBuilder.builder(
                  Action.of("look-" + looks.size(), ActionKind.EYES, 120.5 + looks.size(), null))
              .target(target)
              .note("early")
              .build());
    }
    List<CornerEntry> corners = new ArrayList<>(DRAFT.corners());
    corners.set(0, first.copy().actions(looks).done());
    ReferenceContent written = DRAFT.with(corners);
    String edited = ScoreCsv.write(ROAD.corners(), written, LENGTH).replace(",early,", ",late,");
    List<Action> read =
        ScoreCsv.read(edited, ROAD.corners(), LENGTH, written).corners().get(0).actions();
    assertThat(read)
        .extracting(Action::target)
        .containsExactly(looks.get(0).target(), looks.get(1).target());
    assertThat(read).extracting(Action::note).containsOnly("late");
  }

  @Test
  void cuesHeldTogetherAndBehindComeBackFromATableThatWasEdited() {
    CornerEntry first = DRAFT.corners().get(0);
    Action dab =
        Action.of("dab", ActionKind.BRAKE, 120.26, 0.15)
            .found(
                Cue.after("turn-in", 0.8), Cue.of(CueKind.SETTLED, 0), Cue.of(CueKind.REVS, 6500));
    List<CornerEntry> corners = new ArrayList<>(DRAFT.corners());
    corners.set(0, first.copy().actions(List.of(dab)).done());
    ReferenceContent written = DRAFT.with(corners);
    String edited =
        ScoreCsv.write(ROAD.corners(), written, LENGTH).replace("REVS,6500.000", "REVS,6250");
    Action read =
        ScoreCsv.read(edited, ROAD.corners(), LENGTH, written).corners().get(0).actions().stream()
            .filter(a -> a.id().equals("dab"))
            .findFirst()
            .orElseThrow();
    assertThat(read)
        .isEqualTo(
            dab.at(120.3).found(dab.cue(), Cue.of(CueKind.SETTLED, 0), Cue.of(CueKind.REVS, 6250)));
  }

  @Test
  void readBackNothingIsLost() {
    ReferenceContent back = ReferenceCsv.read(text(), ROAD.corners(), LENGTH, DRAFT);
    for (int c = 0; c < DRAFT.corners().size(); c++) {
      assertThat(back.corners().get(c).points()).isEqualTo(DRAFT.corners().get(c).points());
      assertThat(back.corners().get(c).actions())
          .containsExactlyInAnyOrderElementsOf(DRAFT.corners().get(c).actions());
    }
  }

  @Test
  void whatIsChangedInTheTableIsTakenAndWhatIsLeftOutGoes() {
    CornerEntry first = DRAFT.corners().get(0);
    String changed =
        text()
            .lines()
            .filter(l -> !l.contains(",dab,"))
            .map(
                l -> l.startsWith(number(first) + ",turn-in,") ? l.replace(told(first), "77.7") : l)
            .collect(Collectors.joining("\n"));
    CornerEntry back = ReferenceCsv.read(changed, ROAD.corners(), LENGTH, DRAFT).corners().get(0);
    assertThat(back.actions()).noneMatch(a -> a.id().equals("dab"));
    assertThat(back.station(PointKind.TURN_IN)).contains(77.7);
    assertThat(back.station(PointKind.EXIT)).isEqualTo(first.station(PointKind.EXIT));
    String more =
        "corner,id,kind,station_m,cue,number,amount,unit,sure,note\n"
            + number(first)
            + ",l1,lift,55.5,PAST board-x,12,40,%,,by eye\n";
    CornerEntry lifted = ReferenceCsv.read(more, ROAD.corners(), LENGTH, DRAFT).corners().get(0);
    assertThat(lifted.actions()).hasSize(1);
    Action l1 = lifted.actions().get(0);
    assertThat(l1.amount()).isEqualTo(0.4);
    assertThat(l1.cue()).isEqualTo(Cue.of(CueKind.PAST, "board-x", "board-x", 12));
    assertThat(l1.note()).isEqualTo("by eye");
  }

  @Test
  void aFlatCornerThatIsLiftedOrBrakedForIsFlatNoMore() {
    CornerEntry flat =
        DRAFT.corners().stream().filter(e -> e.slowing() == Slowing.FLAT).findFirst().orElseThrow();
    String header = "corner,id,kind,station_m,cue,number,amount,unit,sure,note\n";
    for (Slowing wanted : List.of(Slowing.LIFT, Slowing.BRAKE)) {
      boolean braked = wanted == Slowing.BRAKE;
      String row = number(flat) + (braked ? ",brake,brake," : ",l,lift,") + "55.5,,,30,%,,\n";
      ReferenceContent back = ReferenceCsv.read(header + row, ROAD.corners(), LENGTH, DRAFT);
      CornerEntry read = back.corners().get(LAP.indexOf(flat.corner()));
      assertThat(read.slowing()).isEqualTo(wanted);
    }
  }

  @Test
  void whatASpreadsheetSavesIsRead() {
    String text = "\uFEFF" + text().replace(',', ';');
    ReferenceContent back = ReferenceCsv.read(text, ROAD.corners(), LENGTH, DRAFT);
    assertThat(back.corners().get(0).actions())
        .containsExactlyInAnyOrderElementsOf(DRAFT.corners().get(0).actions());
    String corners = "\uFEFF" + ReferenceCsv.write(ROAD.corners(), DRAFT).replace(',', ';');
    assertThat(ReferenceCsv.read(corners, ROAD.corners(), LENGTH, DRAFT).corners())
        .hasSameSizeAs(DRAFT.corners());
  }

  private static String number(CornerEntry e) {
    return ROAD.corners().get(LAP.indexOf(e.corner())).number();
  }

  private static String told(CornerEntry e) {
    return String.format(java.util.Locale.ROOT, "%.1f", e.station(PointKind.TURN_IN).orElseThrow());
  }

  @Test
  void badRowsAreToldWithTheirPlace() {
    String header = "corner,id,kind,station_m,cue,number,amount,unit,sure,note\n";
    String number = number(DRAFT.corners().get(0));
    for (String row :
        List.of(
            "99,a,lift,10,,,40,%,,",
            number + ",a,jump,10,,,40,%,,",
            number + ",a,lift,,,,40,%,,",
            number + ",a,lift,99999,,,40,%,,",
            number + ",a,lift,10,NEAR x,,40,%,,",
            number + ",a,lift,10,,,140,%,,",
            number + ",,lift,10,,,40,%,,",
            number + ",a,lift,10,,,x,%,,")) {
      assertThatThrownBy(() -> ReferenceCsv.read(header + row, ROAD.corners(), LENGTH, DRAFT))
          .describedAs(row)
          .isInstanceOf(Refusal.class)
          .satisfies(e -> assertThat(Refused.where(e)).contains("row 2"));
    }
    assertThatThrownBy(() -> ReferenceCsv.read(header, ROAD.corners(), LENGTH, DRAFT))
        .isInstanceOf(Refusal.class);
  }
}
