package marvek.server.keeping;

import java.time.Duration;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;
import org.springframework.util.unit.DataSize;

/**
 * How much an account may keep.
 *
 * @param space for files, laps, pictures, roads and revisions, the basket included
 * @param runsADay runs that may be begun in 24 hours
 * @param basket how long what was put away can be brought back
 * @param farewell how long an account that is to be deleted can be kept after all
 */
@ConfigurationProperties("marvek.keeping")
public record KeepingSettings(
    @DefaultValue("5GB") DataSize space,
    @DefaultValue("200") int runsADay,
    @DefaultValue("30d") Duration basket,
    @DefaultValue("24h") Duration farewell) {}
