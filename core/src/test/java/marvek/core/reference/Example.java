package marvek.core.reference;

import java.util.List;
import marvek.core.circuit.CircuitReader;
import marvek.core.circuit.CircuitReading;
import marvek.core.circuit.OutlineFile;
import marvek.core.circuit.Tracks;
import marvek.core.lap.Conditions;
import marvek.core.marker.Landmark;
import marvek.core.vehicle.VehicleClasses;

/** A lap of four bends after long straights, drafted for a vehicle class. */
final class Example {
  final CircuitReading survey;
  final Desk desk;
  final List<Landmark> boards;
  final ReferenceContent draft;

  private Example(String vehicle) {
    survey =
        CircuitReader.read(
            OutlineFile.read(Tracks.square(420, 45, 4).csv()),
            new CircuitReader.Choices(false, 200, 12, false));
    desk =
        Desk.compute(
            survey.centreline(),
            survey.corners(),
            VehicleClasses.byId(vehicle).vehicle(),
            Conditions.dryWarm());
    boards = Drafter.boards(desk);
    draft = Drafter.draft(desk, boards);
  }

  static Example of(String vehicle) {
    return new Example(vehicle);
  }

  CornerEntry first() {
    return draft.corners().get(0);
  }

  CornerEntry moved(PointKind kind, double by) {
    CornerEntry e = first();
    return with(
        e,
        e.points().stream()
            .map(p -> p.kind() == kind ? new CornerPoint(kind, p.station() + by, p.tie()) : p)
            .toList(),
        e.gear(),
        e.note());
  }

  static CornerEntry with(CornerEntry e, List<CornerPoint> points, int gear, String note) {
    return e.copy().points(points).gear(gear).note(note).done();
  }

  CornerAnswer answer(CornerEntry e) {
    return Answers.answer(desk, e);
  }
}
