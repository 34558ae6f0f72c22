package marvek.server;

import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.multipart;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import jakarta.servlet.http.Cookie;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.test.context.TestComponent;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.mock.web.MockMultipartFile;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.MvcResult;
import org.springframework.test.web.servlet.request.MockHttpServletRequestBuilder;

/** People who use the server over HTTP, each with a session of their own. */
@TestComponent
public class People {
  public static final String PASSWORD = "long enough to be one";

  private final MockMvc web;
  private final ObjectMapper json;

  People(MockMvc web, ObjectMapper json) {
    this.web = web;
    this.json = json;
  }

  /** An answer: its status and body. */
  public record Answer(int status, String text, JsonNode body, MvcResult result) {}

  /** Somebody with a session. */
  public final class Person {
    private final Cookie session;
    private final String language;

    Person(Cookie session) {
      this(session, "en-GB");
    }

    private Person(Cookie session, String language) {
      this.session = session;
      this.language = language;
    }

    /** The same person, answered in marked words. */
    public Person inMarkedWords() {
      return new Person(session, "en-XA");
    }

    public Answer get(String path, Object... parts) {
      return send(
          org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get(path, parts));
    }

    public Answer post(String path, Object body, Object... parts) {
      return send(
          org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post(path, parts)
              .contentType(MediaType.APPLICATION_JSON)
              .content(text(body)));
    }

    public Answer put(String path, Object body, Object... parts) {
      return send(
          org.springframework.test.web.servlet.request.MockMvcRequestBuilders.put(path, parts)
              .contentType(MediaType.APPLICATION_JSON)
              .content(text(body)));
    }

    public Answer delete(String path, Object... parts) {
      return send(
          org.springframework.test.web.servlet.request.MockMvcRequestBuilders.delete(path, parts));
    }

    public Answer get(String path, Map<String, String> query, Object... parts) {
      var request =
          org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get(path, parts);
      query.forEach(request::param);
      return send(request);
    }

    /** Sends a file as the body, as it is. */
    public Answer send(String path, String name, byte[] content, Object... parts) {
      return send(
          org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post(path, parts)
              .param("name", name)
              .contentType(MediaType.APPLICATION_OCTET_STREAM)
              .content(content));
    }

    public Answer replace(String path, byte[] content) {
      return send(
          multipart(org.springframework.http.HttpMethod.PUT, path)
              .file(new MockMultipartFile("file", "picture", null, content)));
    }

    public Answer upload(String path, String fileName, byte[] content, String... fields) {
      var request = multipart(path).file(new MockMultipartFile("file", fileName, null, content));
      for (int i = 0; i < fields.length; i += 2) {
        request.param(fields[i], fields[i + 1]);
      }
      return send(request);
    }

    private Answer send(MockHttpServletRequestBuilder request) {
      return answer(
          request.header(HttpHeaders.ACCEPT_LANGUAGE, language).cookie(session).with(csrf()));
    }
  }

  /** Nobody in particular: no session. */
  public Answer anonymously(MockHttpServletRequestBuilder request) {
    return answer(request.with(csrf()));
  }

  /** A new person with an account of their own. */
  public Person newcomer() {
    return newcomer(UUID.randomUUID() + "@example.org");
  }

  public Person newcomer(String email) {
    return entered(signUp(email, PASSWORD, null));
  }

  /** Tries to make an account. */
  public Answer signUp(String email, String password, @Nullable String invitation) {
    Map<String, String> body = new java.util.HashMap<>();
    body.put("email", email);
    body.put("name", "N");
    body.put("password", password);
    body.put("invitation", invitation);
    return answer(
        post("/api/accounts")
            .contentType(MediaType.APPLICATION_JSON)
            .content(text(body))
            .with(csrf()));
  }

  /** Signs in once more, as from another device. */
  public Person again(String email, String password) {
    return entered(
        answer(
            post("/api/session")
                .contentType(MediaType.APPLICATION_JSON)
                .content(text(Map.of("email", email, "password", password)))
                .with(csrf())));
  }

  /** The demo's driver or coach. */
  public Person demo(String who) {
    return entered(
        answer(
            post("/api/session/demo")
                .contentType(MediaType.APPLICATION_JSON)
                .content("{\"person\":\"" + who + "\"}")
                .with(csrf())));
  }

  private Person entered(Answer answer) {
    Cookie cookie = answer.result().getResponse().getCookie("marvek");
    if (cookie == null) {
      throw new AssertionError("no session: " + answer.status() + " " + answer.text());
    }
    return new Person(cookie);
  }

  private Answer answer(MockHttpServletRequestBuilder request) {
    try {
      MvcResult result = web.perform(request).andReturn();
      String text =
          result.getResponse().getContentAsString(java.nio.charset.StandardCharsets.UTF_8);
      String type = result.getResponse().getContentType();
      boolean tree = type != null && type.contains("json") && !text.isEmpty();
      return new Answer(
          result.getResponse().getStatus(),
          text,
          tree ? json.readTree(text) : json.nullNode(),
          result);
    } catch (Exception e) {
      throw new AssertionError(e);
    }
  }

  private String text(Object body) {
    try {
      return body instanceof String s ? s : json.writeValueAsString(body);
    } catch (com.fasterxml.jackson.core.JsonProcessingException e) {
      throw new AssertionError(e);
    }
  }
}
