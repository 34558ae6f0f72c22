package marvek.server.reference;

import java.time.Clock;
import java.util.List;
import java.util.Objects;
import java.util.UUID;
import java.util.function.Supplier;
import marvek.core.anew.CarriedOver;
import marvek.core.anew.Refresh;
import marvek.core.circuit.Corner;
import marvek.core.entry.ContentCheck;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.ReferenceFile;
import marvek.core.line.Watch;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.said.Value;
import marvek.core.survey.Things;
import marvek.server.circuit.LayoutVersion;
import marvek.server.circuit.Layouts;
import marvek.server.circuit.SurveyBook;
import marvek.server.problem.Problem;
import marvek.server.vehicle.Garage;
import marvek.server.vehicle.VehicleRow;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** References made: drafted, copied to another vehicle or circuit state, taken from a file. */
@Service
public class Drafting {
  private final ReferenceRows rows;
  private final References references;
  private final Layouts layouts;
  private final SurveyBook book;
  private final Garage garage;
  private final LinesWanted lines;
  private final LapsFound found;
  private final Clock clock;
  private final TransactionTemplate transaction;

  Drafting(
      ReferenceRows rows,
      References references,
      Layouts layouts,
      SurveyBook book,
      Garage garage,
      LinesWanted lines,
      LapsFound found,
      Clock clock,
      PlatformTransactionManager transactions) {
    this.rows = rows;
    this.references = references;
    this.layouts = layouts;
    this.book = book;
    this.garage = garage;
    this.lines = lines;
    this.found = found;
    this.clock = clock;
    this.transaction = new TransactionTemplate(transactions);
  }

  /** Drafts a reference for a layout and a vehicle, and places boards where there are none. */
  public ReferenceRow draft(UUID owner, UUID layoutId, UUID vehicleId, String name) {
    return draft(owner, layoutId, vehicleId, name, Watch.NOBODY);
  }

  /**
   * The same, watched. Nothing is stored, and nothing in the database is held, before the line is
   * found.
   */
  ReferenceRow draft(UUID owner, UUID layoutId, UUID vehicleId, String name, Watch watch) {
    Wanted wanted = inOne(() -> lines.wanted(owner, layoutId, vehicleId));
    ComputedLap computed = found.search(wanted, watch);
    return inOne(
        () -> {
          Things things = book.placeFirst(wanted.layout(), Drafter.boards(computed));
          ReferenceContent draft =
              Refresh.content(computed, things, Drafter.draft(computed, things));
          return keep(owner, called(name, wanted), wanted, computed, things, draft);
        });
  }

  private static String called(String name, Wanted wanted) {
    return name.isBlank()
        ? wanted.layout().circuit().name() + " · " + wanted.machine().vehicle().name()
        : name.strip();
  }

  /**
   * Copies a reference to another vehicle, set-up or layout version. Each point is the driver's own
   * plus what the computation says the other circumstances change, and is marked as not proved.
   *
   * @param sheetId set-up sheet of that vehicle, or null
   */
  public ReferenceRow copy(
      UUID owner,
      UUID id,
      UUID layoutId,
      UUID vehicleId,
      @Nullable UUID sheetId,
      String name,
      Watch watch) {
    References.Opened from = inOne(() -> references.open(owner, id));
    Wanted wanted =
        inOne(
            () ->
                lines.wanted(
                    sameCorners(from.layout(), layouts.get(owner, layoutId)),
                    lines.machine(owner, vehicleId, sheetId),
                    from.working()));
    ComputedLap computed = found.search(wanted, watch);
    return inOne(
        () -> {
          Things things = book.placeFirst(wanted.layout(), Drafter.boards(computed));
          ReferenceContent content =
              CarriedOver.content(from.computed(), from.things(), from.working(), computed, things);
          return keep(owner, called(name, wanted), wanted, computed, things, content);
        });
  }

  private static LayoutVersion sameCorners(LayoutVersion from, LayoutVersion to) {
    List<String> there = to.counted().stream().map(Corner::id).toList();
    List<String> here = from.counted().stream().map(Corner::id).toList();
    if (!there.equals(here) || Math.abs(to.length() - from.length()) > 0.01 * to.length()) {
      throw Problem.bad("refusal.reference.layout_other_corners").at("layout");
    }
    return to;
  }

  /** Makes a new reference of a file, on a layout that has the same corners. */
  @Transactional
  public ReferenceRow take(UUID owner, UUID layoutId, ReferenceFile file, Watch watch) {
    LayoutVersion layout = layouts.get(owner, layoutId);
    boolean fits =
        Math.abs(layout.length() - file.layout().length()) < 0.01 * layout.length()
            && layout.cornerCount() == file.layout().corners().size();
    if (!fits) {
      throw Problem.bad(
              "refusal.reference.file_lap_with_corners",
              Value.length(file.layout().length()),
              Value.figure(file.layout().corners().size(), 0),
              Value.length(layout.length()),
              Value.figure(layout.cornerCount(), 0))
          .at("layout");
    }
    VehicleRow vehicle = garage.add(owner, file.vehicleName(), "file", file.vehicle());
    AsSetUp machine = new AsSetUp(vehicle, null);
    ContentCheck.content(
        layout.counted(), layout.length(), vehicle.numbers().gears(), file.content());
    Wanted wanted = lines.wanted(layout, machine, file.content());
    ComputedLap computed = found.search(wanted, watch);
    Things things = book.placeFirst(layout, Drafter.boards(computed));
    ReferenceContent content = Refresh.content(computed, things, file.content());
    return keep(owner, file.name(), wanted, computed, things, content);
  }

  private ReferenceRow keep(
      UUID owner,
      String name,
      Wanted wanted,
      ComputedLap computed,
      Things things,
      ReferenceContent content) {
    return rows.save(
        new ReferenceRow(
            owner,
            wanted.layout().id(),
            wanted.machine(),
            name,
            wanted.footing(),
            computed,
            content,
            Refresh.planned(computed, things, content),
            clock.instant()));
  }

  /** Work in one transaction. */
  private <T> T inOne(Supplier<T> work) {
    return Objects.requireNonNull(transaction.execute(t -> work.get()));
  }
}
