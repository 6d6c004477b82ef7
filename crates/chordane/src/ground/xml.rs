//! Characters of XML.

/// Whether a character can stand in an XML document, by <https://www.w3.org/TR/xml/#charsets>.
pub(crate) const fn is_xml(c: char) -> bool {
    matches!(c, '\t' | '\n' | '\r' | ' '..='\u{fffd}' | '\u{10000}'..)
}
