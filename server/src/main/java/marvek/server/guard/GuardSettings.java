package marvek.server.guard;

import java.time.Duration;
import java.util.List;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;

/**
 * Bounds of what a client may take.
 *
 * @param head within which the whole head of a request must come
 * @param grace that a body, or the reading of an answer, has before its rate is looked at
 * @param bytesASecond that a body or an answer must make after that, on average
 * @param connections from one address at once; from loopback and named proxies eight times as many
 * @param bodies from one address that may be on their way at once; loopback has no limit of its own
 * @param bodiesInAll that may be on their way at once; the other threads are for those who read
 * @param proxies addresses whose word on where a request came from is taken; nobody else's is
 */
@ConfigurationProperties("marvek.guard")
public record GuardSettings(
    @DefaultValue("10s") Duration head,
    @DefaultValue("10s") Duration grace,
    @DefaultValue("8192") long bytesASecond,
    @DefaultValue("256") int connections,
    @DefaultValue("24") int bodies,
    @DefaultValue("96") int bodiesInAll,
    @DefaultValue List<String> proxies) {}
