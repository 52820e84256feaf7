"""File formats: a page for each JSON Schema, with each key's type, range and default."""
import html
import json
import re


def range_of(schema):
    """"[0, 10]", "at most 100 of them": what a value of this schema has to keep to."""
    parts = []
    least, most = schema.get("minimum"), schema.get("maximum")
    above, below = schema.get("exclusiveMinimum"), schema.get("exclusiveMaximum")
    if least is not None and most is not None:
        parts.append(f"[{least}, {most}]")
    elif least is not None:
        parts.append(f"≥ {least}")
    elif most is not None:
        parts.append(f"≤ {most}")
    if above is not None:
        parts.append(f"> {above}")
    if below is not None:
        parts.append(f"< {below}")
    for key, words in (("minItems", "at least {}"), ("maxItems", "at most {}"), ("minLength", "at least {} bytes"),
                       ("maxLength", "at most {} bytes"), ("minProperties", "at least {} keys")):
        if key in schema:
            parts.append("not empty" if key in ("minItems", "minLength") and schema[key] == 1 else words.format(schema[key]))
    if schema.get("uniqueItems"):
        parts.append("distinct")
    return ", ".join(parts)


class Format:
    """The page of one schema."""

    def __init__(self, file):
        self.schema = json.loads(file.read_text())
        self.name = file.name.removesuffix(".schema.json")
        self.title = self.schema.get("title", self.name)

    def type_of(self, schema):
        """In words, with links to what is described below."""
        if schema is True or not schema:
            return "anything"
        if "$ref" in schema:
            return self._link(schema["$ref"])
        if "const" in schema:
            return f"<code>{html.escape(json.dumps(schema['const']))}</code>"
        if "enum" in schema:
            return " <em>or</em> ".join(f"<code>{html.escape(json.dumps(v))}</code>" for v in schema["enum"])
        for key in ("oneOf", "anyOf"):
            if key in schema:
                return " <em>or</em> ".join(dict.fromkeys(self.type_of(s) for s in schema[key]))
        kind = schema.get("type", "object" if "properties" in schema else "anything")
        if kind == "array":
            items = schema.get("items", {})
            return "list" + (f" of {self.type_of(items)}" if isinstance(items, dict) and items else "")
        if kind == "object" and isinstance(schema.get("additionalProperties"), dict):
            return f"object, by name, of {self.type_of(schema['additionalProperties'])}"
        return " or ".join(kind) if isinstance(kind, list) else kind

    @staticmethod
    def _link(ref):
        name = ref.split("/")[-1]
        page = ref.split("#")[0].replace(".schema.json", ".html")
        return f'<a href="{page}#{name}">{name}</a>'

    def rows(self, schema):
        required = schema.get("required", [])
        for key, value in schema.get("properties", {}).items():
            if value is True:
                value = {}
            default = "required" if key in required else (
                f"<code>{html.escape(json.dumps(value['default']))}</code>" if "default" in value else "")
            limits = range_of(value)
            what = self.type_of(value) + (f", {limits}" if limits else "")
            yield (f"<tr><td><code>{html.escape(key)}</code></td><td>{what}</td><td>{default}</td>"
                   f"<td>{prose(value.get('description', ''))}</td></tr>")
            inner = self.within(value)
            if inner:
                yield f"<tr class='within'><td colspan='4'>{inner}</td></tr>"

    def within(self, schema):
        """What objects within have, where they have no name of their own."""
        out = []
        forms = [schema, *schema.get("oneOf", []), *schema.get("anyOf", [])]
        for form in forms:
            if not isinstance(form, dict):
                continue
            items = form.get("items", {})
            extra = form.get("additionalProperties", {})
            for inner in (form, items if isinstance(items, dict) else {}, extra if isinstance(extra, dict) else {}):
                if inner.get("properties") and (inner is not schema or form is schema):
                    out.append(self.table(inner))
                elif inner is not form and (inner.get("oneOf") or inner.get("anyOf")):
                    out.append(self.within(inner))
        return "".join(out)

    def table(self, schema):
        rows = "".join(self.rows(schema))
        return (f"<table class='keys'><thead><tr><th>key</th><th>value</th><th>default</th><th></th></tr></thead>{rows}</table>"
                if rows else "")

    def section(self, name, schema):
        limits = range_of(schema)
        what = "" if schema.get("properties") else f"<p>{self.type_of(schema)}{', ' + limits if limits else ''}</p>"
        return (f"<section id='{html.escape(name)}'><h2>{html.escape(name)}</h2><p>{prose(schema.get('description', ''))}</p>{what}"
                f"{self.within(schema)}</section>")

    def body(self):
        out = [f"<h1>{html.escape(self.title)}</h1><p>{prose(self.schema.get('description', ''))}</p>", self.within(self.schema)]
        out += [self.section(name, schema) for name, schema in self.schema.get("definitions", {}).items()]
        return "".join(out)

    def text(self):
        """What is to be found by: titles, keys and what is said of them."""
        return html.unescape(re.sub(r"<[^>]+>", " ", self.body()))


def prose(text):
    return re.sub(r"`([^`]+)`", r"<code>\1</code>", html.escape(text))
