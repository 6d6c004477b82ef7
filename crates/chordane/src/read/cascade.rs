//! What style sheets and `style` attributes say of each element, the winning declarations last.

use roxmltree::NodeId;

use super::style_sheets::{Declaration, Rules, Told, declarations};
use super::tree::start_of;
use crate::ground::exhausted;

/// So many declarations that hold for elements at most, all elements together.
const MAX_APPLIED_DECLARATIONS: usize = 20_000_000;

/// The declarations of a document, and for each element those that hold for it.
#[derive(Debug, Default)]
pub(super) struct Cascade {
    declarations: Vec<Declaration>,
    /// For each node of the tree in turn, the numbers of its declarations, and where they end.
    order: Vec<usize>,
    ends: Vec<usize>,
}

impl Cascade {
    /// The cascade of a document: what is important goes over what is not, `style` over style sheets, a more specific selector over a less
    /// specific one, and the later over the earlier.
    pub(super) fn of(tree: &roxmltree::Document<'_>, told: &mut Vec<Told>) -> Self {
        let mut cascade = Self::default();
        let rules = Rules::of(tree, told);
        let selectors = &rules.selectors;
        let ranges: Vec<std::ops::Range<usize>> = rules
            .rules
            .into_iter()
            .map(|rule| {
                let start = cascade.declarations.len();
                cascade.declarations.extend(rule);
                start..cascade.declarations.len()
            })
            .collect();
        let mut held = Vec::new();
        // For each node, its place among the elements right inside the one around it, counted from 1.
        let mut nth: Vec<usize> = Vec::new();
        for element in tree.descendants() {
            let before = element.prev_sibling_element().and_then(|before| nth.get(before.id().get_usize()));
            nth.push(before.unwrap_or(&0) + 1);
            if exhausted(20) {
                break;
            }
            if cascade.order.len() > MAX_APPLIED_DECLARATIONS {
                let what = "the style sheets set too many properties in all: from here on they are left out";
                told.push(Told { at: start_of(element), lines: 0, what: what.to_owned() });
                break;
            }
            for (specificity, rule) in selectors.of(element, &nth) {
                let range = ranges.get(rule).cloned().unwrap_or_default();
                held.extend(range.map(|declaration| (false, specificity, declaration)));
            }
            if let Some(style) = element.attribute("style") {
                let start = cascade.declarations.len();
                cascade.declarations.extend(declarations(style));
                held.extend((start..cascade.declarations.len()).map(|own| (true, [0; 3], own)));
            }
            let important = |number: usize| {
                cascade.declarations.get(number).is_some_and(|declaration| declaration.important)
            };
            held.sort_by_key(|&(inline, specificity, number)| {
                (important(number), inline, specificity, number)
            });
            cascade.order.extend(held.drain(..).map(|(.., number)| number));
            cascade.ends.push(cascade.order.len());
        }
        cascade
    }

    /// What holds for an element, the winning ones last.
    pub(super) fn held(&self, element: NodeId) -> impl DoubleEndedIterator<Item = (&str, &str)> {
        let end_of = |number: usize| self.ends.get(number).copied().unwrap_or(self.order.len());
        let element = element.get_usize();
        let start = element.checked_sub(1).map_or(0, end_of);
        let numbers = self.order.get(start..end_of(element)).unwrap_or_default();
        let declarations = numbers.iter().filter_map(|number| self.declarations.get(*number));
        declarations.map(|declaration| (declaration.name.as_str(), declaration.value.as_str()))
    }
}
