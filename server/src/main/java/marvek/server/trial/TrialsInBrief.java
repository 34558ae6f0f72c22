package marvek.server.trial;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.UUID;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.DayKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.session.Alternative;
import marvek.core.session.PlannedTrial;
import marvek.core.session.TrialPlan;
import marvek.core.technique.School;
import marvek.core.vehicle.SetupParameter;
import marvek.server.access.Driver;
import marvek.server.reference.References;
import marvek.server.reference.Speaking;
import marvek.server.session.BriefTrials;
import marvek.server.session.Sessions;
import org.springframework.stereotype.Component;

/** The trials of a session as its brief tells them. */
@Component
class TrialsInBrief implements BriefTrials {
  private final Trials trials;
  private final Sessions sessions;
  private final References references;
  private final Speaking speaking;

  TrialsInBrief(Trials trials, Sessions sessions, References references, Speaking speaking) {
    this.trials = trials;
    this.sessions = sessions;
    this.references = references;
    this.speaking = speaking;
  }

  @Override
  public List<ToDrive> of(Driver driver, UUID session) {
    List<CornerTrial> all = trials.ofSessions(sessions.group(session));
    if (all.isEmpty()) {
      return List.of();
    }
    References.Opened opened = references.open(driver.id(), all.get(0).referenceId());
    return all.stream()
        .map(CornerTrial::body)
        .map(t -> new ToDrive(t.corner(), ways(t, line(t, opened, driver)), order(t)))
        .toList();
  }

  private static Said ways(PlannedTrial t, String line) {
    return Said.of(
        "page.tried.ways",
        called(t.a()).in(),
        called(t.b()).in(),
        Value.choice(!line.isEmpty()),
        Value.own(line.replaceAll("\\.$", "")));
  }

  /** The other way as it is driven; empty for a set-up. */
  private String line(PlannedTrial t, References.Opened opened, Driver driver) {
    List<CornerEntry> entries =
        t.b().entries().stream().filter(e -> e.corner().equals(t.corner())).toList();
    return entries.isEmpty()
        ? ""
        : speaking.words(opened.computed(), new ReferenceContent(entries), driver).get(0).line();
  }

  private static Said called(Alternative way) {
    Said words =
        switch (way.source()) {
          case SCHOOL ->
              Arrays.stream(School.values())
                  .filter(s -> s.name().equals(way.key()))
                  .map(School::called)
                  .findFirst()
                  .orElse(own(way.key()));
          case DAY -> way.label().isEmpty() ? day(way.key()) : own(way.label());
          case REVISION -> own(way.key());
          case SETTING ->
              SetupParameter.find(way.key())
                  .map(
                      p ->
                          Said.of(
                              "page.tried.setting",
                              p.label().in(),
                              Value.own((way.label() + " " + p.unit()).strip())))
                  .orElse(own(way.key()));
          case REFERENCE, SHEET, WORDS -> own(way.label());
        };
    return Said.of(
        "page.tried.way",
        Value.choice(way.source()),
        words.in(),
        Value.choice(words.equals(Said.NOTHING)));
  }

  private static Said own(String text) {
    return text.isEmpty() ? Said.NOTHING : Said.of("stored", Value.own(text));
  }

  private static Said day(String kind) {
    return Arrays.stream(DayKind.values())
        .filter(k -> k.name().equals(kind))
        .map(DayKind::said)
        .findFirst()
        .orElse(own(kind));
  }

  private static Said order(PlannedTrial t) {
    TrialPlan plan = t.plan();
    if (plan == null || plan.order().isEmpty()) {
      return Said.of("page.tried.no_room");
    }
    return Said.of(
        "page.tried.order",
        Value.choice(t.ofStints()),
        Value.own(String.join(" · ", blocks(t, plan))));
  }

  /** Laps, or stints, in blocks of one way. */
  private static List<String> blocks(PlannedTrial t, TrialPlan plan) {
    List<String> out = new ArrayList<>();
    List<TrialPlan.Way> order = plan.order();
    int begun = 0;
    for (int i = 1; i <= order.size(); i++) {
      // Two blocks of one way beside each other are two: the first lap of each finds the way again.
      boolean ends =
          i == order.size()
              || t.ofStints()
              || order.get(i) != order.get(begun)
              || i % TrialPlan.BLOCK == 0;
      if (ends) {
        int first = t.ofStints() ? begun + 1 : t.from() + begun;
        int last = first + i - 1 - begun;
        out.add((first == last ? first : first + "–" + last) + " " + order.get(begun));
        begun = i;
      }
    }
    return out;
  }
}
