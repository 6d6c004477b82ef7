//! The XML tree of a document.

use roxmltree::{Error, Node, ParsingOptions};

use super::entities;
use super::error::ReadError;

/// An element of a document.
pub(super) type Element<'a> = Node<'a, 'a>;

/// Elements inside one another: deeper is a document gone wrong, and each level takes some of the machine's stack.
const MAX_DEPTH: usize = 128;

/// Maximum number of XML nodes.
const MAX_NODES: u32 = 8_000_000;

const SVG: &str = "http://www.w3.org/2000/svg";
const XLINK: &str = "http://www.w3.org/1999/xlink";

/// Parses a document. Declared entities are expanded, up to a limit; external entities expand to nothing and are never fetched.
pub(super) fn parse(text: &str) -> Result<roxmltree::Document<'_>, ReadError> {
    entities::check(text)?;
    let options = ParsingOptions {
        allow_dtd: true,
        nodes_limit: MAX_NODES,
        entity_resolver: Some(&|_, _| Ok(Some(""))),
    };
    let tree = roxmltree::Document::parse_with_options(text, options).map_err(|error| match error {
        Error::NodesLimitReached => {
            ReadError::TooMany { what: "nodes", limit: MAX_NODES as usize, used: false }
        }
        Error::NoRootNode => ReadError::NoSvg,
        error => ReadError::of_xml(text, &error),
    })?;
    let mut depths: Vec<u8> = Vec::new();
    for node in tree.descendants() {
        let around = node.parent().and_then(|parent| depths.get(parent.id().get_usize()));
        let depth = around.map_or(0, |around| around + u8::from(node.is_element()));
        if usize::from(depth) > MAX_DEPTH {
            return Err(ReadError::TooDeep { line: line_of(text, node.range().start), limit: MAX_DEPTH });
        }
        depths.push(depth);
    }
    Ok(tree)
}

/// Returns the line of a byte offset, counted from 1.
pub(super) fn line_of(text: &str, at: usize) -> usize {
    text.as_bytes().iter().take(at).filter(|byte| **byte == b'\n').count() + 1
}

/// Returns the byte offset at which an element begins.
pub(super) fn start_of(element: Element<'_>) -> usize {
    element.range().start
}

/// Returns `true` for an element in the SVG namespace, or without a namespace if the root has none either.
pub(super) fn is_svg(node: Element<'_>) -> bool {
    let bare = || node.document().root_element().tag_name().namespace().is_none();
    node.is_element() && node.tag_name().namespace().map_or_else(bare, |namespace| namespace == SVG)
}

/// Returns the local name of an element.
pub(super) fn name<'a>(element: Element<'a>) -> &'a str {
    element.tag_name().name()
}

/// Returns the child elements in the SVG namespace.
pub(super) fn children<'a>(of: Element<'a>) -> impl Iterator<Item = Element<'a>> {
    of.children().filter(|child| is_svg(*child))
}

/// Returns the value of `href` or `xlink:href`.
pub(super) fn href<'a>(element: Element<'a>) -> Option<&'a str> {
    element.attribute("href").or_else(|| element.attribute((XLINK, "href")))
}

/// Returns the id in a reference such as `#sail`.
pub(super) fn id_of(target: &str) -> &str {
    target.trim_matches(['"', '\'', ' ']).trim_start_matches('#')
}

/// Returns the text directly inside an element. Comments become empty lines, so that line numbers stay right.
pub(super) fn text_in(element: Element<'_>) -> String {
    let source = element.document().input_text();
    let mut text = String::new();
    for child in element.children() {
        match child.text().filter(|_| child.is_text()) {
            Some(part) => text.push_str(part),
            None => {
                let lines = source.get(child.range()).unwrap_or_default().matches('\n').count();
                text.extend(std::iter::repeat_n('\n', lines));
            }
        }
    }
    text
}
