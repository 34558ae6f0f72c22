package marvek.server.work;

import java.time.Duration;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;

/**
 * How heavy work is done.
 *
 * @param moment for which whoever asks for it waits, as most is done at once
 * @param queued that may wait
 */
@ConfigurationProperties("marvek.work")
public record WorkSettings(
    @DefaultValue("800ms") Duration moment, @DefaultValue("64") int queued) {}
