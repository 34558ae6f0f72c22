package marvek.server.reference;

import java.time.LocalDateTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import marvek.core.anew.LapAsPlanned;
import marvek.core.anew.Refresh;
import marvek.core.circuit.LocalPlane;
import marvek.core.entry.ContentCheck;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Day;
import marvek.core.entry.ReferenceContent;
import marvek.core.marker.Landmark;
import marvek.core.marker.MarkerJudge;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.CornerAnswer;
import marvek.core.said.Value;
import marvek.core.survey.Things;
import marvek.server.circuit.LayoutVersion;
import marvek.server.circuit.Layouts;
import marvek.server.circuit.SurveyBook;
import marvek.server.problem.Problem;
import marvek.server.sharing.Role;
import marvek.server.sharing.Sharing;
import marvek.server.vehicle.Garage;
import marvek.server.vehicle.SheetRow;
import marvek.server.vehicle.Sheets;
import marvek.server.vehicle.VehicleRow;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** References opened, to read or to work on, and what a corner of theirs leads to. */
@Service
public class References {
  private final ReferenceRows rows;
  private final Revisions revisions;
  private final Layouts layouts;
  private final SurveyBook book;
  private final Garage garage;
  private final Sheets sheets;
  private final ComputedLaps computedLaps;
  private final Sharing sharing;

  References(
      ReferenceRows rows,
      Revisions revisions,
      Layouts layouts,
      SurveyBook book,
      Garage garage,
      Sheets sheets,
      ComputedLaps computedLaps,
      Sharing sharing) {
    this.rows = rows;
    this.revisions = revisions;
    this.layouts = layouts;
    this.book = book;
    this.garage = garage;
    this.sheets = sheets;
    this.computedLaps = computedLaps;
    this.sharing = sharing;
  }

  /**
   * A reference with what is needed to compute on it.
   *
   * @param working its working copy, in line with the corners that there are now
   * @param role of the person who opened it
   */
  public record Opened(
      ReferenceRow row,
      LayoutVersion layout,
      Things things,
      Map<String, Integer> thingVersions,
      ComputedLap computed,
      ReferenceContent working,
      Role role) {
    public List<Landmark> landmarks() {
      return things.landmarks();
    }

    /**
     * From where and when the driver looks.
     *
     * @param at on the circuit's clock; null where the hour does not matter
     * @param traffic whether another vehicle is close ahead
     */
    public MarkerJudge.View view(@Nullable LocalDateTime at, boolean traffic) {
      LocalPlane plane = layout.plane();
      return new MarkerJudge.View(
          at == null ? null : layout.instant(at),
          plane == null
              ? null
              : new MarkerJudge.Spot(plane.latitude(), plane.longitude(), layout.altitude()),
          traffic,
          computed.eye());
    }

    /** Refuses a content that does not fit these corners or this vehicle. */
    void check(ReferenceContent content) {
      ContentCheck.content(
          layout.counted(), computed.road().length(), computed.vehicle().gears(), content);
    }

    /** Content of before with an entry for each corner that there is now. */
    ReferenceContent fitting(ReferenceContent content) {
      return Refresh.fitting(computed, things, content);
    }

    /** The lap if it is driven so. */
    LapAsPlanned planned(ReferenceContent content) {
      return Refresh.planned(computed, things, content);
    }

    /** Refuses work on what another window has changed since. */
    void sameVersion(int version) {
      if (row.version() != version) {
        throw Problem.conflict(
            WorkingView.of(row), "refusal.reference.another_window_changed_reference");
      }
    }
  }

  /** The computed on one of the reference's days. */
  public ComputedLap on(Opened opened, Day day) {
    return computedLaps.on(opened.row(), opened.layout(), opened.computed(), day);
  }

  /** The computed on a day, on the line of another of its days. */
  public ComputedLap held(Opened opened, Day lineOf, Day day) {
    return computedLaps.held(
        opened.row(), opened.layout(), opened.computed(), on(opened, lineOf), lineOf, day);
  }

  /** A reference's vehicle as it is now, which may have been edited since. */
  @Transactional(readOnly = true)
  VehicleRow vehicle(Opened opened) {
    return garage.get(opened.row().ownerId(), opened.row().vehicleId());
  }

  /** The sheet that is on a vehicle for the next session, or null. */
  @Transactional(readOnly = true)
  @Nullable SheetRow nextSheet(Opened opened, VehicleRow vehicle) {
    UUID next = vehicle.nextSheetId();
    return next == null ? null : sheets.find(opened.row().ownerId(), next).orElse(null);
  }

  /** A corner after its points moved: brought into line, and what they lead to. */
  public record Answered(CornerEntry entry, CornerAnswer answer) {}

  @Transactional(readOnly = true)
  public List<ReferenceSummary> of(UUID owner) {
    return rows.summaries(owner);
  }

  /** Whose reference it is. */
  @Transactional(readOnly = true)
  public Optional<UUID> ownerOf(UUID id) {
    return rows.findById(id).map(ReferenceRow::ownerId);
  }

  /** References of others that are open to somebody. */
  @Transactional(readOnly = true)
  public List<SharedReference> sharedWith(UUID person) {
    return rows.sharedWith(person);
  }

  /** Opens a reference of one's own, to work on it. */
  @Transactional(readOnly = true)
  public Opened open(UUID owner, UUID id) {
    ReferenceRow row =
        rows.findByIdAndOwnerId(id, owner)
            .orElseThrow(
                () ->
                    sharing.given(id, owner).isPresent()
                        ? Problem.forbidden("refusal.reference.reference_drivers_change")
                        : Problem.none("refusal.none.no_reference_among_yours"));
    return opened(row, Role.OWNER);
  }

  /** Opens a reference of one's own, or one that is open to this person, to read it. */
  @Transactional(readOnly = true)
  public Opened read(UUID person, UUID id) {
    Optional<ReferenceRow> own = rows.findByIdAndOwnerId(id, person);
    if (own.isPresent()) {
      return opened(own.get(), Role.OWNER);
    }
    Role role =
        sharing
            .given(id, person)
            .orElseThrow(() -> Problem.none("refusal.none.no_reference_among_yours"));
    return opened(rows.findById(id).orElseThrow(), role);
  }

  private Opened opened(ReferenceRow row, Role role) {
    LayoutVersion layout = layouts.get(row.ownerId(), row.layoutVersionId());
    ComputedLap computed = computedLaps.of(row, layout);
    SurveyBook.Found found = book.found(layout.id());
    Things things = found.things();
    return new Opened(
        row,
        layout,
        things,
        found.versions(),
        computed,
        Refresh.fitting(computed, things, row.working()),
        role);
  }

  public Answered answer(Opened opened, CornerEntry given) {
    return answer(opened, given, null);
  }

  /**
   * What an entry leads to.
   *
   * @param moved id of an action that was moved by hand, whose cue follows it; null for none
   */
  public Answered answer(Opened opened, CornerEntry given, @Nullable String moved) {
    opened.check(new ReferenceContent(List.of(given)));
    CornerEntry held =
        moved == null ? given : Answers.moved(opened.computed(), opened.things(), given, moved);
    CornerEntry entry = Answers.placed(opened.computed(), opened.things(), held);
    CornerAnswer answer = Answers.answer(opened.computed(), opened.things(), entry);
    return new Answered(
        Refresh.entry(opened.computed(), opened.landmarks(), entry, answer.reached()), answer);
  }

  /** A corner that a rule moved, answered: its cues follow from those that it had. */
  CornerEntry followed(Opened opened, CornerEntry had, CornerEntry now) {
    CornerEntry entry = Answers.followed(opened.computed(), opened.things(), had, now);
    return answer(opened, entry).entry();
  }

  /** Content as it was driven: of a revision, or the working copy for 0. */
  @Transactional(readOnly = true)
  public ReferenceContent driven(Opened opened, int revision) {
    return revisions
        .findByReferenceIdAndOwnerIdAndNumber(opened.row().id(), opened.row().ownerId(), revision)
        .map(r -> opened.fitting(r.content()))
        .orElse(opened.working());
  }

  @Transactional(readOnly = true)
  public List<Revision> revisions(UUID owner, UUID id) {
    return revisions.findByReferenceIdAndOwnerIdOrderByNumberDesc(id, owner);
  }

  @Transactional(readOnly = true)
  Revision revision(UUID owner, UUID id, int number) {
    return revisions
        .findByReferenceIdAndOwnerIdAndNumber(id, owner, number)
        .orElseThrow(() -> Problem.none("refusal.none.no_revision", Value.figure(number, 0)));
  }

  /** Content from a file, tied to the landmarks here and brought into line. */
  ReferenceContent taken(Opened opened, ReferenceContent content) {
    opened.check(content);
    return Refresh.content(opened.computed(), opened.things(), content);
  }
}
