package marvek.server.reference;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import marvek.core.lap.Conditions;
import marvek.core.marker.Landmark;
import marvek.core.reference.Answers;
import marvek.core.reference.ContentCheck;
import marvek.core.reference.CornerAnswer;
import marvek.core.reference.CornerEntry;
import marvek.core.reference.Desk;
import marvek.core.reference.Drafter;
import marvek.core.reference.ReferenceContent;
import marvek.core.reference.ReferenceFile;
import marvek.core.reference.Refresh;
import marvek.server.circuit.LayoutVersion;
import marvek.server.circuit.Layouts;
import marvek.server.problem.Problem;
import marvek.server.vehicle.Garage;
import marvek.server.vehicle.VehicleRow;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** References of one owner: drafting, working on them, saving revisions. */
@Service
public class References {
  private final ReferenceRows rows;
  private final Revisions revisions;
  private final Layouts layouts;
  private final Garage garage;
  private final Desks desks;
  private final Clock clock;

  References(
      ReferenceRows rows,
      Revisions revisions,
      Layouts layouts,
      Garage garage,
      Desks desks,
      Clock clock) {
    this.rows = rows;
    this.revisions = revisions;
    this.layouts = layouts;
    this.garage = garage;
    this.desks = desks;
    this.clock = clock;
  }

  /** A reference with what is needed to compute on it. */
  public record Opened(
      ReferenceRow row, LayoutVersion layout, List<Landmark> landmarks, Desk desk) {}

  /** A reference's vehicle as it is now, which may have been edited since. */
  @Transactional(readOnly = true)
  VehicleRow vehicle(UUID owner, Opened opened) {
    return garage.get(owner, opened.row().vehicleId());
  }

  /** A corner after its points moved: brought into line, and what they lead to. */
  public record Answered(CornerEntry entry, CornerAnswer answer) {}

  @Transactional(readOnly = true)
  public List<ReferenceSummary> of(UUID owner) {
    return rows.summaries(owner);
  }

  @Transactional(readOnly = true)
  public Opened open(UUID owner, UUID id) {
    ReferenceRow row =
        rows.findByIdAndOwnerId(id, owner)
            .orElseThrow(() -> Problem.notFound("There is no such reference among yours."));
    LayoutVersion layout = layouts.get(owner, row.layoutVersionId());
    return new Opened(row, layout, layouts.landmarks(layout.id()), desks.of(row, layout));
  }

  /** Drafts a reference for a layout and a vehicle, and places boards where there are none. */
  @Transactional
  public ReferenceRow draft(UUID owner, UUID layoutId, UUID vehicleId, String name) {
    LayoutVersion layout = layouts.get(owner, layoutId);
    VehicleRow vehicle = garage.get(owner, vehicleId);
    Desk desk = compute(layout, vehicle);
    List<Landmark> landmarks = layouts.placeFirst(layout, Drafter.boards(desk));
    ReferenceContent draft = refreshed(desk, landmarks, Drafter.draft(desk, landmarks));
    String called =
        name.isBlank() ? layout.circuit().name() + " · " + vehicle.name() : name.strip();
    return rows.save(
        new ReferenceRow(
            owner, layoutId, vehicle, called, desk, draft, time(desk, draft), clock.instant()));
  }

  private Desk compute(LayoutVersion layout, VehicleRow vehicle) {
    return Desk.compute(
        layouts.road(layout), layout.corners(), vehicle.numbers(), Conditions.dryWarm());
  }

  /** Computes the line and numbers anew with the vehicle as it is now; the points stay. */
  @Transactional
  public ReferenceRow takeVehicle(UUID owner, UUID id) {
    Opened opened = open(owner, id);
    VehicleRow vehicle = garage.get(owner, opened.row().vehicleId());
    Desk desk = compute(opened.layout(), vehicle);
    opened.row().sitAt(vehicle, desk);
    ReferenceContent content = refreshed(desk, opened.landmarks(), opened.row().working());
    opened.row().work(content, time(desk, content), clock.instant());
    return rows.saveAndFlush(opened.row());
  }

  public Answered answer(Opened opened, CornerEntry entry) {
    check(opened, new ReferenceContent(List.of(entry)));
    CornerAnswer answer = Answers.answer(opened.desk(), entry);
    return new Answered(Refresh.entry(opened.desk(), opened.landmarks(), entry, answer), answer);
  }

  /** Stores the working copy; refuses when another window was first. */
  @Transactional
  public ReferenceRow work(UUID owner, UUID id, int version, ReferenceContent content) {
    Opened opened = open(owner, id);
    sameVersion(opened.row(), version);
    check(opened, content);
    opened.row().work(content, time(opened.desk(), content), clock.instant());
    return rows.saveAndFlush(opened.row());
  }

  /** Saves the working copy as the next revision. */
  @Transactional
  public ReferenceRow save(UUID owner, UUID id, int version, String reason) {
    Opened opened = open(owner, id);
    ReferenceRow row = opened.row();
    sameVersion(row, version);
    int number = revisions.lastNumber(id) + 1;
    revisions.save(new Revision(row, number, reason.strip(), clock.instant()));
    row.saved(number);
    return rows.saveAndFlush(row);
  }

  /** Takes an older revision as the new start; the revision itself stays as it is. */
  @Transactional
  public ReferenceRow startFrom(UUID owner, UUID id, int version, int number) {
    Opened opened = open(owner, id);
    sameVersion(opened.row(), version);
    Revision revision = revision(owner, id, number);
    opened.row().startFrom(number, revision.content(), revision.lapTime(), clock.instant());
    return rows.saveAndFlush(opened.row());
  }

  @Transactional(readOnly = true)
  List<Revision> revisions(UUID owner, UUID id) {
    return revisions.findByReferenceIdAndOwnerIdOrderByNumberDesc(id, owner);
  }

  @Transactional(readOnly = true)
  Revision revision(UUID owner, UUID id, int number) {
    return revisions
        .findByReferenceIdAndOwnerIdAndNumber(id, owner, number)
        .orElseThrow(() -> Problem.notFound("There is no revision " + number + "."));
  }

  /** Content from a file, tied to the landmarks here and brought into line. */
  ReferenceContent taken(Opened opened, ReferenceContent content) {
    check(opened, content);
    return refreshed(opened.desk(), opened.landmarks(), content);
  }

  /** Makes a new reference of a file, on a layout that has the same corners. */
  @Transactional
  public ReferenceRow take(UUID owner, UUID layoutId, ReferenceFile file) {
    LayoutVersion layout = layouts.get(owner, layoutId);
    boolean fits =
        Math.abs(layout.length() - file.layout().length()) < 0.01 * layout.length()
            && layout.corners().size() == file.layout().corners().size();
    if (!fits) {
      throw Problem.bad(
          String.format(
              java.util.Locale.ROOT,
              "The file is for a lap of %.0f m with %d corners; this one has %.0f m and %d.",
              file.layout().length(),
              file.layout().corners().size(),
              layout.length(),
              layout.corners().size()),
          "layout",
          "Choose the layout that the reference was made for, or bring that circuit first.");
    }
    VehicleRow vehicle = garage.add(owner, file.vehicleName(), "file", file.vehicle());
    Desk desk = compute(layout, vehicle);
    List<Landmark> landmarks = layouts.placeFirst(layout, Drafter.boards(desk));
    ContentCheck.content(
        layout.corners(), layout.length(), vehicle.numbers().gears(), file.content());
    ReferenceContent content = refreshed(desk, landmarks, file.content());
    return rows.save(
        new ReferenceRow(
            owner,
            layoutId,
            vehicle,
            file.name(),
            desk,
            content,
            time(desk, content),
            clock.instant()));
  }

  private static void check(Opened opened, ReferenceContent content) {
    ContentCheck.content(
        opened.layout().corners(),
        opened.desk().road().length(),
        opened.desk().vehicle().gears(),
        content);
  }

  private static ReferenceContent refreshed(
      Desk desk, List<Landmark> landmarks, ReferenceContent content) {
    List<CornerEntry> entries = new ArrayList<>();
    for (CornerEntry e : content.corners()) {
      entries.add(Refresh.entry(desk, landmarks, e, Answers.answer(desk, e)));
    }
    return new ReferenceContent(entries);
  }

  private static double time(Desk desk, ReferenceContent content) {
    return Refresh.lapTime(
        desk.lap(), content.corners().stream().map(e -> Answers.answer(desk, e)).toList());
  }

  private static void sameVersion(ReferenceRow row, int version) {
    if (row.version() != version) {
      throw Problem.conflict(
          "Another window changed this reference.",
          "Look at both and choose what stands.",
          new ReferenceController.WorkingView(row.version(), row.working()));
    }
  }
}
