//! What elements are drawn with: their properties, from attributes, style sheets and `style`, and what they hand down.

use super::error::shortened;
use super::properties::{Properties, Taken};
use super::tree::{Element, start_of};
use super::walk::{Inherited, Own, Walk};
use crate::number::Point;

impl Inherited {
    /// What the outermost element is handed.
    pub(super) fn none(viewport: Point) -> Self {
        Self { properties: Properties::default(), own: Own::default(), viewport }
    }
}

impl<'a> Walk<'a> {
    /// What an element hands down to those inside, and what is its own alone.
    pub(super) fn inherited(&mut self, element: Element<'a>, from: &Inherited) -> Inherited {
        let document = self.document;
        let mut made = Inherited { own: Own::default(), ..from.clone() };
        let plain = element.attributes().filter(|attribute| attribute.namespace().is_none());
        let said = plain.map(|attribute| (attribute.name(), attribute.value(), false));
        // What style sheets and `style` say goes over attributes.
        let said = said.chain(document.styled(element).map(|(name, value)| (name, value, true)));
        for (name, value, styled) in said {
            let taken = match made.own.take(name, value, &from.own) {
                Taken::Unknown => made.properties.take(name, value, &from.properties, from.viewport),
                taken => taken,
            };
            match taken {
                Taken::Yes => {}
                Taken::BadValue => self.bad_value(element, name, value),
                Taken::Unknown if ["none", "normal", "auto"].contains(&value.trim()) => {}
                Taken::Unknown if styled => {
                    if !IGNORED_PROPERTIES.contains(&name)
                        && !name.starts_with(['-'])
                        && !name.starts_with("font")
                    {
                        self.note(
                            start_of(element),
                            format!("the property {name} is not understood: left out"),
                        );
                    }
                }
                Taken::Unknown => {
                    if UNSUPPORTED_ATTRIBUTES.contains(&name) {
                        self.note(
                            start_of(element),
                            format!("the attribute {name} is not understood: left out"),
                        );
                    }
                }
            }
        }
        made
    }

    /// What the elements inside one are handed that is drawn where it is asked for, not where it stands. What is not understood of those around it is
    /// noted where they are drawn.
    pub(super) fn handed_down(&mut self, element: Element<'a>, viewport: Point) -> Inherited {
        let mut around: Vec<Element<'a>> =
            std::iter::successors(Some(element), Element::parent_element).collect();
        around.reverse();
        let notes = std::mem::replace(&mut self.quiet, true);
        let made = around
            .into_iter()
            .fold(Inherited::none(viewport), |from, element| self.inherited(element, &from));
        self.quiet = notes;
        made
    }

    pub(super) fn bad_value(&mut self, element: Element<'_>, name: &str, value: &str) {
        self.note(start_of(element), format!("{name}=\"{}\" is not understood: left out", shortened(value)));
    }
}

/// Attributes that are not read and change the picture.
const UNSUPPORTED_ATTRIBUTES: &[&str] = &["marker", "marker-end", "marker-mid", "marker-start"];

/// Properties in `style` that change nothing of what is drawn here, or are read elsewhere.
const IGNORED_PROPERTIES: &[&str] = &[
    "block-progression",
    "clip-rule",
    "color-interpolation",
    "color-interpolation-filters",
    "color-rendering",
    "cursor",
    "cx",
    "cy",
    "d",
    "enable-background",
    "height",
    "image-rendering",
    "letter-spacing",
    "line-height",
    "mask-type",
    "overflow",
    "pointer-events",
    "r",
    "rotate",
    "rx",
    "ry",
    "scale",
    "shape-rendering",
    "text-align",
    "text-anchor",
    "text-indent",
    "text-rendering",
    "transform",
    "transform-box",
    "transform-origin",
    "translate",
    "white-space",
    "width",
    "word-spacing",
    "writing-mode",
    "x",
    "y",
];
