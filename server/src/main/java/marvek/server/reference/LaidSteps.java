package marvek.server.reference;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.UUID;
import marvek.core.plan.CornerBalance;
import marvek.server.problem.Problem;
import org.springframework.stereotype.Component;

/** Steps of a set-up with a line of their own, for a while: nothing of it is stored. */
@Component
class LaidSteps {
  private static final Duration KEPT = Duration.ofMinutes(10);

  private record Of(UUID driver, UUID reference, CornerBalance.Laid laid) {}

  private final Cache<UUID, Of> all =
      Caffeine.newBuilder().maximumSize(1000).expireAfterWrite(KEPT).build();

  UUID keep(UUID driver, UUID reference, CornerBalance.Laid laid) {
    UUID id = UUID.randomUUID();
    all.put(id, new Of(driver, reference, laid));
    return id;
  }

  CornerBalance.Laid of(UUID driver, UUID reference, UUID id) {
    Of kept = all.getIfPresent(id);
    if (kept == null || !kept.driver.equals(driver) || !kept.reference.equals(reference)) {
      throw Problem.notFound("What was computed is not kept any more.");
    }
    return kept.laid;
  }
}
