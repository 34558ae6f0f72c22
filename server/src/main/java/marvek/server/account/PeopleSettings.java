package marvek.server.account;

import java.net.InetAddress;
import java.net.UnknownHostException;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;

/**
 * Who may make an account.
 *
 * @param signUp by default open on loopback, by invitation where the server has an address
 * @param signUpsFromOne accounts that one address makes in an hour, at most
 * @param signUpsInAll accounts made in an hour, at most
 */
@ConfigurationProperties("marvek.people")
public record PeopleSettings(
    @DefaultValue("AUTO") SignUp signUp,
    @DefaultValue("150") int signUpsFromOne,
    @DefaultValue("600") int signUpsInAll) {
  /** How accounts are made. */
  public enum SignUp {
    AUTO,
    OPEN,
    INVITED
  }

  /** Whether anybody may, on a server at this address. */
  boolean open(String serverAddress) {
    if (signUp != SignUp.AUTO) {
      return signUp == SignUp.OPEN;
    }
    try {
      return InetAddress.getByName(serverAddress).isLoopbackAddress();
    } catch (UnknownHostException e) {
      return false;
    }
  }
}
