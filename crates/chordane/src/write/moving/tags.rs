//! The text of an SVG document that we wrote, taken apart into its tags again, so that frames can be laid one on the other.

use quick_xml::Reader;
use quick_xml::events::{BytesStart, Event};

/// Where a tag begins or ends an element, or both.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Side {
    Open,
    Close,
    /// An element without anything in it.
    Alone,
    /// No tag: text between two of them.
    Text,
}

/// A tag as it stands in the text.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) struct Tag {
    pub(super) side: Side,
    /// The element's name; of text, the text.
    pub(super) name: String,
    /// The attributes in order, their values as they stand in the text.
    pub(super) attributes: Vec<(String, String)>,
    /// Where it begins in the text.
    pub(super) at: usize,
}

/// The tags of a text, and what stands between them where it is more than line ends; `None` of a text that is no document.
pub(super) fn tags(text: &str) -> Option<Vec<Tag>> {
    let mut reader = Reader::from_str(text);
    let mut all = Vec::new();
    loop {
        let at = usize::try_from(reader.buffer_position()).ok()?;
        let plain = |side: Side, name: &str| Tag { side, name: name.to_owned(), attributes: Vec::new(), at };
        match reader.read_event().ok()? {
            Event::Start(start) => all.push(tag(Side::Open, &start, at)?),
            Event::Empty(start) => all.push(tag(Side::Alone, &start, at)?),
            Event::End(end) => all.push(plain(Side::Close, end.name().as_ref())),
            Event::Text(text) if text.trim_ascii().is_empty() => {}
            Event::Text(text) => all.push(plain(Side::Text, &text)),
            Event::GeneralRef(name) => all.push(plain(Side::Text, &format!("&{};", &*name))),
            Event::Eof => return Some(all),
            _ => return None,
        }
    }
}

fn tag(side: Side, start: &BytesStart<'_>, at: usize) -> Option<Tag> {
    let attributes = start
        .attributes()
        .with_checks(false)
        .map(|attribute| attribute.ok().map(|one| (one.key.as_ref().to_owned(), one.value.into_owned())))
        .collect::<Option<_>>()?;
    Some(Tag { side, name: start.name().as_ref().to_owned(), attributes, at })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::prelude::*;

    #[test]
    fn a_document_is_its_tags() -> Result<(), Fault> {
        let page = sheet(20.0, 10.0)
            .title("a < b & c")
            .add(group().add(circle((5.0, 5.0), 2.0).fill("teal").named("a\"b")));
        let text = page.svg()?;
        let tags = tags(&text).unwrap();
        let sides: Vec<(Side, &str)> = tags.iter().map(|tag| (tag.side, tag.name.as_str())).collect();
        assert_eq!(
            sides,
            [
                (Side::Open, "svg"),
                (Side::Open, "title"),
                (Side::Text, "a "),
                (Side::Text, "&lt;"),
                (Side::Text, " b "),
                (Side::Text, "&amp;"),
                (Side::Text, " c"),
                (Side::Close, "title"),
                (Side::Open, "g"),
                (Side::Alone, "path"),
                (Side::Close, "g"),
                (Side::Close, "svg"),
            ]
        );
        assert_eq!(tags[9].attributes[0], ("id".to_owned(), "a&quot;b".to_owned()));
        assert!(text[tags[9].at..].starts_with("<path"));
        Ok(())
    }
}
