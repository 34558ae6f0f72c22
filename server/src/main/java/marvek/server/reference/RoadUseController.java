package marvek.server.reference;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.util.List;
import java.util.UUID;
import marvek.core.circuit.Centreline;
import marvek.core.day.Footing;
import marvek.core.entry.RoadUse;
import marvek.core.lap.Ground;
import marvek.core.lap.Surface;
import marvek.core.line.Gate;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Relaid;
import marvek.core.said.Said;
import marvek.core.survey.Edge;
import marvek.core.survey.Edges;
import marvek.server.access.Driver;
import marvek.server.problem.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What a reference uses beside the road, where it must pass, and the line laid anew for it. */
@RestController
@RequestMapping("/api/references/{id}")
class RoadUseController {
  private final References references;
  private final Recomputing recomputing;

  RoadUseController(References references, Recomputing recomputing) {
    this.references = references;
    this.recomputing = recomputing;
  }

  /**
   * An edge that may be opened.
   *
   * @param corner id of the corner that it belongs to: the nearest apex
   * @param opened whether the working copy opens it
   * @param reach metres past the edge that a tyre may go; 0 where it must not
   * @param never why it cannot be used; null where it can
   * @param risks of using it
   */
  record EdgeView(
      @NotNull String id,
      @NotNull String corner,
      boolean kerb,
      boolean left,
      double from,
      double to,
      boolean opened,
      double reach,
      double grip,
      @Nullable Said never,
      List<Said> risks) {}

  /**
   * A place that the line passes.
   *
   * @param missing metres that the room lacks for it; 0 where it can be met
   */
  record GateView(@NotNull Gate gate, double missing) {}

  /** What is used and what could be. */
  record UseView(List<EdgeView> edges, List<GateView> gates) {}

  /** An edge asked about. */
  record EdgeRequest(@NotNull String edge) {}

  /**
   * What an edge is worth, the lap with it less the lap without, both lines laid anew on the road
   * between the corners around it.
   *
   * @param seconds of a lap that it gains
   */
  record WorthView(double seconds, LaidView with) {}

  /**
   * A line laid anew.
   *
   * @param from station at which it leaves the line at hand, m
   * @param metres after which it joins it again
   * @param step metres between its values
   * @param before metres to the left of the middle on the line at hand
   * @param after on the line laid anew
   * @param lapBefore seconds on the line at hand
   * @param lapAfter seconds on the line laid anew
   * @param use that it is laid for
   */
  record LaidView(
      double from,
      double metres,
      double step,
      double[] before,
      double[] after,
      double lapBefore,
      double lapAfter,
      @NotNull RoadUse use) {}

  /** The wish to be taken, made on this version of the working copy. */
  record TakeRequest(int version, @NotNull Recomputing.Wish wish) {}

  @GetMapping("/use")
  UseView use(@AuthenticationPrincipal Driver driver, @PathVariable UUID id) {
    References.Opened opened = references.read(driver.id(), id);
    ComputedLap computed = opened.computed();
    RoadUse use = RoadUse.of(opened.working().use());
    List<EdgeView> edges =
        edges(opened).stream()
            .map(
                e ->
                    new EdgeView(
                        e.id(),
                        corner(computed, e),
                        e.kerb(),
                        e.left(),
                        e.from(),
                        e.to(),
                        use.opened().contains(e.id()),
                        e.reach(),
                        e.grip(),
                        e.never() == null ? null : e.never().said(),
                        e.risks().stream().map(Edge.Risk::said).toList()))
            .toList();
    // Of gates the room is that without them.
    Ground without = ground(opened, new Footing.Used(opened.row().used().edges(), List.of()));
    List<GateView> gates =
        use.gates().stream()
            .map(g -> new GateView(g, g.missing(computed.road(), computed.vehicle(), without)))
            .toList();
    return new UseView(edges, gates);
  }

  private static List<Edge> edges(References.Opened opened) {
    ComputedLap computed = opened.computed();
    return Edges.all(
        computed.road(), opened.layout().counted(), opened.things(), computed.vehicle());
  }

  private static Ground ground(References.Opened opened, Footing.Used used) {
    ComputedLap computed = opened.computed();
    return opened
        .row()
        .footing()
        .withUsed(used)
        .ground(computed.road(), computed.corners(), computed.vehicle(), Surface.DRY);
  }

  private static String corner(ComputedLap computed, Edge e) {
    Centreline road = computed.road();
    double middle = road.wrap(e.from() + road.ahead(e.from(), e.to()) / 2);
    return computed.corners().stream()
        .min(
            (a, b) ->
                Double.compare(
                    Math.abs(road.apart(a.apex(), middle)), Math.abs(road.apart(b.apex(), middle))))
        .orElseThrow()
        .id();
  }

  /** What an edge is worth, whether it is opened or not. */
  @PostMapping("/use/worth")
  WorthView worth(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody EdgeRequest body) {
    References.Opened opened = references.read(driver.id(), id);
    Edge edge =
        edges(opened).stream()
            .filter(e -> e.id().equals(body.edge()))
            .findFirst()
            .orElseThrow(() -> Problem.none("refusal.none.no_edge_survey"));
    if (!edge.usable()) {
      throw Problem.bad("refusal.reference.edge_cannot_used").at("edge");
    }
    RoadUse now = RoadUse.of(opened.working().use());
    RoadUse shut = now.shut(edge.id());
    RoadUse open = shut.open(edge.id());
    ComputedLap computed = opened.computed();
    Relaid.Worth worth =
        Relaid.worth(
            computed,
            ground(opened, used(opened, shut)),
            ground(opened, used(opened, open)),
            edge.from(),
            edge.to());
    return new WorthView(worth.seconds(), view(computed, worth.with(), open));
  }

  private static Footing.Used used(References.Opened opened, RoadUse use) {
    ComputedLap computed = opened.computed();
    return Footing.used(
        computed.road(),
        opened.layout().counted(),
        opened.things(),
        computed.vehicle(),
        opened.working().withUse(use));
  }

  /** The line laid anew for a wish, beside the one at hand; nothing is stored. */
  @PostMapping("/laid-anew")
  LaidView tried(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody Recomputing.Wish wish) {
    References.Opened opened = references.read(driver.id(), id);
    Recomputing.LaidAnew laid = recomputing.layAnew(opened, wish);
    return view(opened.computed(), laid.relaid(), laid.use());
  }

  private static LaidView view(ComputedLap computed, Relaid relaid, RoadUse use) {
    Centreline road = computed.road();
    int stride = (int) Math.max(1, Math.round(2 / road.step()));
    return new LaidView(
        relaid.from() * road.step(),
        relaid.count() * road.step(),
        stride * road.step(),
        piece(computed, relaid, stride, computed.path().offset()),
        piece(computed, relaid, stride, relaid.computed().path().offset()),
        computed.lap().lapTime(),
        relaid.computed().lap().lapTime(),
        use);
  }

  private static double[] piece(ComputedLap computed, Relaid relaid, int stride, double[] offset) {
    double[] out = new double[(relaid.count() + stride - 1) / stride];
    for (int k = 0; k < out.length; k++) {
      double at = offset[computed.road().loop().at(relaid.from() + k * stride)];
      out[k] = Math.round(at * 1000) / 1000.0;
    }
    return out;
  }

  /** Takes the line laid anew; it can be undone as what was computed anew. */
  @PostMapping("/laid-anew/taken")
  WorkingView take(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody TakeRequest body) {
    ReferenceRow row = recomputing.takeLaidAnew(driver.id(), id, body.version(), body.wish());
    return WorkingView.of(row);
  }
}
