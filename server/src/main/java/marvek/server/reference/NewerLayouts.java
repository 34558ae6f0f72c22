package marvek.server.reference;

import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import marvek.core.anew.Doubt;
import marvek.core.entry.PointKind;
import marvek.server.circuit.LayoutVersion;
import marvek.server.circuit.Layouts;
import marvek.server.circuit.SurveyBook;
import marvek.server.problem.Problem;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** References taken over to a newer version of their layout, and the points in doubt after it. */
@Service
public class NewerLayouts {
  private final ReferenceRows rows;
  private final References references;
  private final Layouts layouts;
  private final SurveyBook book;

  NewerLayouts(ReferenceRows rows, References references, Layouts layouts, SurveyBook book) {
    this.rows = rows;
    this.references = references;
    this.layouts = layouts;
    this.book = book;
  }

  /**
   * What a newer version of the layout would mean.
   *
   * @param newer whether there is one
   * @param doubts points that it would put in doubt
   */
  record Ahead(boolean newer, List<Doubt> doubts) {}

  Ahead ahead(References.Opened opened) {
    return layouts
        .newer(opened.layout())
        .map(newer -> new Ahead(true, doubts(opened, newer)))
        .orElse(new Ahead(false, List.of()));
  }

  private List<Doubt> doubts(References.Opened opened, LayoutVersion newer) {
    return Doubt.about(
        opened.computed().road(),
        opened.working(),
        opened.landmarks(),
        book.found(newer.id()).things().landmarks(),
        newer.changes().stream().map(c -> new Doubt.Change(c.from(), c.to(), c.what())).toList());
  }

  /** Takes the reference over to the newest version of its layout. */
  @Transactional
  public ReferenceRow moveToNewest(UUID owner, UUID id) {
    References.Opened opened = references.open(owner, id);
    LayoutVersion newest =
        layouts
            .newer(opened.layout())
            .orElseThrow(
                () -> Problem.bad("refusal.reference.newest_version_already").at("layout"));
    if (Math.abs(newest.length() - opened.layout().length()) > 0.5) {
      throw Problem.bad("refusal.reference.newest_version_another_road").at("layout");
    }
    List<Doubt> inDoubt = new ArrayList<>(opened.row().doubts());
    doubts(opened, newest).stream().filter(d -> !inDoubt.contains(d)).forEach(inDoubt::add);
    opened.row().moveTo(newest.id(), inDoubt);
    return rows.saveAndFlush(opened.row());
  }

  /** Takes one point out of doubt. */
  @Transactional
  public ReferenceRow confirm(UUID owner, UUID id, String corner, PointKind kind) {
    ReferenceRow row = references.open(owner, id).row();
    row.confirm(d -> d.corner().equals(corner) && d.kind() == kind);
    return rows.saveAndFlush(row);
  }
}
