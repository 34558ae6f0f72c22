package marvek.server.problem;

import com.fasterxml.jackson.annotation.JsonSetter;
import com.fasterxml.jackson.annotation.Nulls;
import com.fasterxml.jackson.core.Version;
import com.fasterxml.jackson.databind.introspect.Annotated;
import com.fasterxml.jackson.databind.introspect.AnnotatedConstructor;
import com.fasterxml.jackson.databind.introspect.AnnotatedParameter;
import com.fasterxml.jackson.databind.introspect.AnnotationIntrospectorPair;
import com.fasterxml.jackson.databind.introspect.NopAnnotationIntrospector;
import java.lang.reflect.AnnotatedParameterizedType;
import java.lang.reflect.AnnotatedType;
import java.lang.reflect.RecordComponent;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.autoconfigure.jackson.Jackson2ObjectMapperBuilderCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/**
 * No list or map that comes in holds nulls, for validation looks at what an element holds only; but
 * where a record says that its elements may be null, they may.
 */
@Configuration
class NoNulls {
  @Bean
  Jackson2ObjectMapperBuilderCustomizer noNullsInLists() {
    return builder ->
        builder.postConfigurer(
            m -> {
              m.setDefaultSetterInfo(JsonSetter.Value.forContentNulls(Nulls.FAIL));
              m.setAnnotationIntrospector(
                  AnnotationIntrospectorPair.pair(
                      new MayBeNull(), m.getDeserializationConfig().getAnnotationIntrospector()));
            });
  }

  /** Reads {@code List<@Nullable Double>} of a record's component for what it says. */
  private static final class MayBeNull extends NopAnnotationIntrospector {
    private static final long serialVersionUID = 1L;

    @Override
    public Version version() {
      return Version.unknownVersion();
    }

    @Override
    public JsonSetter.Value findSetterInfo(Annotated of) {
      if (of instanceof AnnotatedParameter p && p.getOwner() instanceof AnnotatedConstructor made) {
        // What is written at a component is kept there, and not at the compact constructor.
        RecordComponent[] parts = made.getDeclaringClass().getRecordComponents();
        if (parts != null
            && parts.length == made.getParameterCount()
            && nullable(parts[p.getIndex()].getAnnotatedType())) {
          return JsonSetter.Value.forContentNulls(Nulls.SET);
        }
      }
      return JsonSetter.Value.empty();
    }

    private static boolean nullable(AnnotatedType type) {
      if (!(type instanceof AnnotatedParameterizedType of)) {
        return false;
      }
      AnnotatedType[] parts = of.getAnnotatedActualTypeArguments();
      return parts[parts.length - 1].isAnnotationPresent(Nullable.class);
    }
  }
}
