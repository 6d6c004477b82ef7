//! The expanded size of the entities that a document declares.

use std::collections::HashMap;

use super::error::ReadError;

/// Maximum total size of expanded entities, in bytes: a few bytes of declarations can expand to gigabytes.
const MAX_BYTES: usize = 16 << 20;

/// Maximum nesting of entities, which is the XML parser's own.
const MAX_LEVELS: usize = 10;

/// Checks that the entities of a document do not expand beyond the limit.
pub(super) fn check(text: &str) -> Result<(), ReadError> {
    let mut values: HashMap<&str, &str> = HashMap::new();
    for declaration in text.split("<!ENTITY").skip(1) {
        let Some((name, value)) = declared(declaration) else { continue };
        values.entry(name).or_insert(value);
    }
    if values.is_empty() {
        return Ok(());
    }
    // Each round resolves one more level of nesting.
    let mut sizes: HashMap<&str, usize> = HashMap::new();
    for _ in 0..MAX_LEVELS {
        sizes = values.iter().map(|(name, value)| (*name, size_of(value, &sizes))).collect();
    }
    match size_of(text, &sizes).saturating_sub(text.len()) {
        0..=MAX_BYTES => Ok(()),
        _ => Err(ReadError::Entities { limit: MAX_BYTES }),
    }
}

/// Returns the name and value of a declaration, whose text follows `<!ENTITY`.
fn declared(text: &str) -> Option<(&str, &str)> {
    let (name, rest) = text.trim_start().split_once(|c: char| c.is_whitespace())?;
    let rest = rest.trim_start();
    let quote = rest.chars().next().filter(|c| ['"', '\''].contains(c))?;
    Some((name, rest.get(1..)?.split(quote).next()?))
}

/// Returns the size of a text with its references expanded.
fn size_of(text: &str, sizes: &HashMap<&str, usize>) -> usize {
    let referred = text.split('&').skip(1).filter_map(|part| {
        let end = part.bytes().position(|byte| byte == b';' || byte.is_ascii_whitespace())?;
        sizes.get(part.get(..end)?)
    });
    referred.fold(text.len(), |sum, size| sum.saturating_add(*size))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_entities_come_to_is_counted_through_all_levels() {
        let nested = |levels: usize| {
            let level = |k: usize| format!("<!ENTITY e{} \"{}\">", k + 1, format!("&e{k};").repeat(10));
            let all: String = (0..levels).map(level).collect();
            format!("<!DOCTYPE svg [<!ENTITY e0 'ten bytes.'>{all}]><svg a='&e{levels};'/>")
        };
        // The references within the declarations count too.
        assert!(check(&nested(5)).is_ok());
        let told =
            "the entities of the document expand to more than 16777216 bytes; write their text instead";
        assert_eq!(check(&nested(7)).map_err(|error| error.to_string()), Err(told.to_owned()));
        let flat = |times: usize| {
            let value = "kite".repeat(256);
            format!("<!DOCTYPE svg [<!ENTITY k '{value}'>]><svg>{}</svg>", "&k;".repeat(times))
        };
        assert!(check(&flat(16_000)).is_ok());
        assert!(check(&flat(17_000)).is_err());
        // Undeclared and self-referential entities add nothing.
        assert!(check("<svg>&amp;&kite;</svg>").is_ok());
        assert!(check("<!DOCTYPE svg [<!ENTITY k '&k;'><!ENTITY % p 'x'>]><svg>&k;</svg>").is_ok());
    }
}
