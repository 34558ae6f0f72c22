package marvek.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.CircuitReading;
import marvek.core.circuit.Corner;
import marvek.core.day.Footing;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.KerbUse;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.RoadUse;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.lap.Ground;
import marvek.core.lap.Surface;
import marvek.core.line.CornerLine;
import marvek.core.line.Gate;
import marvek.core.line.Room;
import marvek.core.line.Watch;
import marvek.core.survey.Edge;
import marvek.core.survey.Edges;
import marvek.core.survey.Kerb;
import marvek.core.survey.KerbProfile;
import marvek.core.survey.Things;
import marvek.core.technique.School;
import org.junit.jupiter.api.Test;

/** The line laid anew on a stretch, for edges that are opened and places that are to be passed. */
class RelaidTest {
  private static final double EDGE = 0.05;
  private static final double HAIRPIN = 0.17;

  private static Kerb exitKerb(Centreline road, Corner c, String id) {
    return new Kerb(
        id,
        !c.left(),
        road.wrap(c.apex() + 10),
        road.wrap(c.exit() + 50),
        c.id(),
        Kerb.Part.EXIT,
        KerbProfile.FLAT,
        1,
        0.03,
        Kerb.Behind.TARMAC,
        false,
        Kerb.Verdict.OPEN,
        "",
        "");
  }

  private record Tried(CircuitReading read, ComputedLap lap) {}

  private static final List<Tried> ROADS = roads();

  private static List<Tried> tried() {
    return ROADS;
  }

  private static List<Tried> roads() {
    List<Tried> out = new ArrayList<>();
    String[] vehicles = {"cup-gt", "small-hatch", "motorcycle-600"};
    for (int k = 0; k < vehicles.length; k++) {
      CircuitReading read = RandomRoads.of(70 + k, 260);
      out.add(new Tried(read, Drives.computed(read, vehicles[k])));
    }
    return out;
  }

  private static void holds(ComputedLap lap) {
    Room room = Room.on(lap.road(), lap.vehicle(), lap.ground());
    for (int i = 0; i < lap.road().size(); i++) {
      assertThat(lap.path().offset()[i]).isBetween(room.lower()[i] - EDGE, room.upper()[i] + EDGE);
    }
  }

  @Test
  void kerbsAreWorthSomethingOrNothingAndTheRestOfTheLineStays() {
    double most = 0;
    for (Tried t : tried()) {
      Centreline road = t.lap().road();
      for (Corner c : t.read().corners()) {
        Things things =
            new Things(List.of(), List.of(exitKerb(road, c, "k")), List.of(), List.of(), List.of());
        Edge edge = Edges.all(road, t.read().corners(), things, t.lap().vehicle()).get(0);
        Ground open = Edges.open(road, t.lap().ground(), List.of(edge), t.lap().vehicle());
        Relaid.Worth worth = Relaid.worth(t.lap(), t.lap().ground(), open, edge.from(), edge.to());
        assertThat(worth.seconds()).as(c.id()).isBetween(-1e-9, 1.0);
        most = Math.max(most, worth.seconds());
        Relaid with = worth.with();
        holds(with.computed());
        holds(worth.without().computed());
        for (int k = with.count(); k < road.size(); k++) {
          int i = road.loop().at(with.from() + k);
          assertThat(with.computed().path().offset()[i])
              .isEqualTo(worth.without().computed().path().offset()[i]);
        }
        // Without the edge nothing of it is used.
        Room road0 = Room.on(road, t.lap().vehicle(), t.lap().ground());
        for (int i = 0; i < road.size(); i++) {
          assertThat(worth.without().computed().path().offset()[i])
              .isBetween(road0.lower()[i] - EDGE, road0.upper()[i] + EDGE);
        }
      }
    }
    assertThat(most).as("some kerb is worth something").isGreaterThan(0.02);
  }

  /** The whole search finds little more than what is laid on the stretch alone. */
  @Test
  void whatAStretchFindsIsNearlyAllThatTheLapFinds() {
    for (Tried t : tried()) {
      Centreline road = t.lap().road();
      List<Kerb> kerbs = new ArrayList<>();
      t.read().corners().forEach(c -> kerbs.add(exitKerb(road, c, "k-" + c.id())));
      Things things = new Things(List.of(), kerbs, List.of(), List.of(), List.of());
      List<Edge> edges = Edges.all(road, t.read().corners(), things, t.lap().vehicle());
      Ground open = Edges.open(road, t.lap().ground(), edges, t.lap().vehicle());
      ComputedLap whole =
          ComputedLap.compute(
              road, t.read().corners(), open, t.lap().vehicle(), t.lap().conditions());
      ComputedLap at = t.lap();
      List<Edge> laid = new ArrayList<>();
      for (Edge e : edges) {
        laid.add(e);
        Ground ground = Edges.open(road, t.lap().ground(), laid, t.lap().vehicle());
        at = Relaid.of(at, ground, e.from(), e.to()).computed();
      }
      assertThat(whole.lap().lapTime()).isLessThan(t.lap().lap().lapTime());
      assertThat(at.lap().lapTime() / whole.lap().lapTime() - 1).isLessThan(0.004);
      holds(at);
      holds(whole);
    }
  }

  @Test
  void aGateIsPassedWhereItIsAndCostsTime() {
    Random random = new Random(3);
    for (Tried t : tried()) {
      ComputedLap lap = t.lap();
      Centreline road = lap.road();
      double half = lap.vehicle().width() / 2;
      for (int k = 0; k < 12; k++) {
        double station = road.length() * random.nextDouble();
        boolean left = random.nextBoolean();
        int i = road.index(station);
        double width = road.left()[i] + road.right()[i] - 2 * half;
        double tolerance = random.nextBoolean() ? 0.05 : 0.4;
        Gate gate =
            new Gate("g", station, left, 0.3 + (width - 0.6) * random.nextDouble(), tolerance);
        Ground through = Gate.through(road, lap.ground(), List.of(gate), lap.vehicle());
        assertThat(gate.missing(road, lap.vehicle(), lap.ground())).isZero();
        Relaid laid = Relaid.of(lap, through, station, station);
        double offset = laid.computed().path().offset()[i];
        double gap = (left ? road.left()[i] - offset : road.right()[i] + offset) - half;
        assertThat(gap)
            .as("at %.0f", station)
            .isCloseTo(gate.metres(), within(Math.max(tolerance, 0.1) + EDGE));
        assertThat(laid.computed().lap().lapTime())
            .isGreaterThan(lap.lap().lapTime() - 2e-3 * lap.lap().lapTime());
        holds(laid.computed());
      }
    }
  }

  @Test
  void aGateThatCannotBeMetSaysByHowMuch() {
    Tried t = tried().get(0);
    Centreline road = t.lap().road();
    double half = t.lap().vehicle().width() / 2;
    int i = road.index(200);
    double width = road.left()[i] + road.right()[i];
    Gate beyond = new Gate("g", 200, true, -1, 0);
    assertThat(beyond.missing(road, t.lap().vehicle(), t.lap().ground()))
        .isCloseTo(1 + Ground.MARGIN, within(1e-9));
    Gate far = new Gate("g", 200, true, width - 2 * half + 0.5, 0.2);
    assertThat(far.missing(road, t.lap().vehicle(), t.lap().ground()))
        .isCloseTo(0.5 - 0.2 + Ground.MARGIN, within(1e-9));
    Ground through = Gate.through(road, t.lap().ground(), List.of(far), t.lap().vehicle());
    holds(Relaid.of(t.lap(), through, 200, 200).computed());
  }

  /** What a driver drags is where the line laid anew has it. */
  @Test
  void theLineGoesThroughPointsThatWereMoved() {
    int seen = 0;
    for (Tried t : tried()) {
      ComputedLap lap = t.lap();
      Centreline road = lap.road();
      List<CornerEntry> draft = Drafter.draft(lap, List.of()).corners();
      for (int c = 0; c < draft.size(); c++) {
        CornerEntry entry = draft.get(c);
        double apex = lap.lines().get(c).apex();
        CornerEntry dragged =
            entry.copy().moved(PointKind.APEX, road.wrap(Math.round(apex) + 6)).done();
        List<Gate> gates = Relaid.gates(lap, dragged);
        assertThat(Relaid.gates(lap, entry)).as("as drafted").isEmpty();
        assertThat(gates).hasSize(1);
        ReferenceContent content =
            new ReferenceContent(draft, List.of(), null, RoadUse.NONE.through(gates));
        Footing footing = Footing.of(road, lap.corners(), Things.none(), lap.vehicle(), content);
        Ground ground = footing.ground(road, lap.corners(), lap.vehicle(), Surface.DRY);
        Footing.Stretch on = Footing.differ(road, Footing.Used.NONE, footing.used()).orElseThrow();
        assertThat(on.start()).isEqualTo(gates.get(0).station());
        Relaid laid = Relaid.of(lap, ground, on.start(), on.end());
        int i = road.index(gates.get(0).station());
        int was = road.index(apex);
        boolean left = lap.corners().get(c).left();
        double gap = left ? road.left()[was] : road.right()[was];
        gap += left ? -lap.path().offset()[was] : lap.path().offset()[was];
        double offset = laid.computed().path().offset()[i];
        double is = left ? road.left()[i] - offset : road.right()[i] + offset;
        // Of the place itself and of its tolerance; in a hairpin the line bends no sharper.
        assertThat(is).as(entry.corner()).isCloseTo(gap, within(0.1 + HAIRPIN));
        CornerEntry carried = Drafter.draft(laid.computed(), List.of()).corners().get(c);
        CornerEntry passed = Relaid.passed(carried, dragged);
        assertThat(passed.station(PointKind.APEX)).isEqualTo(dragged.station(PointKind.APEX));
        assertThat(passed.station(PointKind.BRAKE)).isEqualTo(carried.station(PointKind.BRAKE));
        // A search of the whole lap keeps to it too.
        if (seen++ % 12 == 0) {
          double near = laid.computed().near(Watch.NOBODY).path().offset()[i];
          double kept = left ? road.left()[i] - near : road.right()[i] + near;
          assertThat(kept).isCloseTo(gap, within(0.1 + HAIRPIN));
        }
      }
    }
    assertThat(seen).isGreaterThan(15);
  }

  @Test
  void anApexKeptOffTheInsideIsAGateFurtherFromIt() {
    for (Tried t : tried()) {
      ComputedLap lap = t.lap();
      for (CornerEntry entry : Drafter.draft(lap, List.of()).corners()) {
        CornerLine line = lap.lines().get(lap.indexOf(entry.corner()));
        List<Gate> gates = Relaid.gates(lap, entry.copy().apexOff(1.2).done());
        assertThat(gates).hasSize(1);
        CornerEntry off = entry.copy().apexOff(1.2).done();
        assertThat(Relaid.passed(off, off).apexOff()).as("it is in the line then").isZero();
        CornerEntry late = off.copy().schools(List.of(School.LATE_APEX)).done();
        assertThat(Relaid.gates(lap, late)).as("the choice lays its own line").isEmpty();
        assertThat(Relaid.passed(late, late)).isEqualTo(late);
        assertThat(gates.get(0).metres())
            .isCloseTo(line.apexGap() - lap.vehicle().width() / 2 + 1.2, within(0.15));
        assertThat(gates.get(0).left())
            .isEqualTo(lap.corners().get(lap.indexOf(entry.corner())).left());
      }
    }
  }

  /** What a corner's entry says is done with a kerb bounds what is opened there. */
  @Test
  void aKerbThatTheEntryKeepsOffIsNotOpenedAndOneThatIsTouchedALittle() {
    Tried t = tried().get(0);
    Corner corner = t.read().corners().get(1);
    Kerb kerb = exitKerb(t.lap().road(), corner, "k");
    Things things = new Things(List.of(), List.of(kerb), List.of(), List.of(), List.of());
    List<CornerEntry> draft = Drafter.draft(t.lap(), List.of()).corners();
    for (Kerb.Verdict how : Kerb.Verdict.values()) {
      KerbUse use = new KerbUse(Kerb.Part.EXIT, how, null, null, "");
      List<CornerEntry> entries =
          draft.stream()
              .map(e -> e.corner().equals(corner.id()) ? e.copy().kerbs(List.of(use)).done() : e)
              .toList();
      ReferenceContent content =
          new ReferenceContent(entries, List.of(), null, RoadUse.NONE.open("k"));
      Footing.Used used =
          Footing.used(t.lap().road(), t.read().corners(), things, t.lap().vehicle(), content);
      if (how == Kerb.Verdict.KEEP_OFF) {
        assertThat(used.edges()).isEmpty();
      } else {
        assertThat(used.edges()).hasSize(1);
        assertThat(used.edges().get(0).reach())
            .isCloseTo(how == Kerb.Verdict.TOUCH ? 0.3 : 1, within(1e-9));
      }
    }
  }

  @Test
  void theStretchThatDiffersIsTheShortest() {
    Centreline road = tried().get(0).lap().road();
    double length = road.length();
    Gate a = new Gate("a", length - 20, true, 1, 0.2);
    Gate b = new Gate("b", 30, true, 1, 0.2);
    Footing.Used both = new Footing.Used(List.of(), List.of(b, a));
    Footing.Stretch on = Footing.differ(road, Footing.Used.NONE, both).orElseThrow();
    assertThat(on.start()).isCloseTo(length - 20, within(1e-9));
    assertThat(on.end()).isCloseTo(30, within(1e-6));
    assertThat(Footing.differ(road, both, both)).isEmpty();
    assertThat(
            Footing.differ(road, both, new Footing.Used(List.of(), List.of(a)))
                .orElseThrow()
                .start())
        .isEqualTo(30);
  }
}
