package marvek.server.rehearse;

import java.time.Duration;
import java.util.List;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;

/**
 * The server's own voice.
 *
 * @param command that reads a text from its input and writes WAV to its output
 * @param each how long one text may take
 * @param all how long a whole lap may take
 * @param turn how long one waits for another's lap
 */
@ConfigurationProperties("marvek.voice")
record VoiceSettings(
    @DefaultValue({"espeak-ng", "-v", "en-gb", "-s", "150", "--stdin", "--stdout"})
        List<String> command,
    @DefaultValue("2s") Duration each,
    @DefaultValue("20s") Duration all,
    @DefaultValue("5s") Duration turn) {}
