//! Clips, masks, filters and blend modes of a document.

use super::attributes::{Along, length, numbers, share};
use super::clips::Clips;
use super::error::ReadError;
use super::error::shortened;
use super::properties::{Taken, reference};
use super::tree::{Element, children, name, start_of};
use super::walk::{Own, Walk};
use crate::ground::Given;
use crate::number::{Cell, Point};
use crate::path::Affine;
use crate::shape::rectangle;
use crate::sheet::{BlendMode, Effect, Group, Layered, MaskKind, Node, group};

impl Own {
    /// Takes over a property that is not handed down; what the element around says of itself is only for those that ask for it.
    pub(super) fn take(&mut self, name: &str, value: &str, around: &Self) -> Taken {
        let value = value.trim();
        let first = Self::default();
        let from = match value {
            "inherit" => Some(around),
            "initial" | "unset" | "revert" | "revert-layer" => Some(&first),
            _ => None,
        };
        let reference = || reference(value).map(str::to_owned);
        macro_rules! set {
            ($slot:ident, $value:expr) => {
                match from {
                    Some(from) => self.$slot.clone_from(&from.$slot),
                    None => match $value {
                        Some(value) => self.$slot = value,
                        None => return Taken::BadValue,
                    },
                }
            };
        }
        match name {
            "opacity" => set!(opacity, share(value)),
            "display" => set!(shown, Some(value != "none")),
            "clip-path" => set!(clip, Some(reference().or_else(|| (value != "none").then(String::new)))),
            "mask" => set!(mask, Some(reference())),
            "filter" => set!(filter, Some(reference().or_else(|| (value != "none").then(String::new)))),
            "mix-blend-mode" => set!(blend, Given::<BlendMode>::from(value).resolve("blend").ok()),
            "isolation" => set!(isolated, Some(value == "isolate")),
            "vector-effect" => set!(
                unscaled,
                match value {
                    "non-scaling-stroke" => Some(true),
                    "none" => Some(false),
                    _ => None,
                }
            ),
            _ => return Taken::Unknown,
        }
        Taken::Yes
    }

    /// Whether it is drawn just as it is.
    pub(super) fn is_plain(&self) -> bool {
        self.opacity == 1.0
            && self.clip.is_none()
            && self.mask.is_none()
            && self.filter.is_none()
            && self.blend == BlendMode::Normal
            && !self.isolated
    }
}

impl<'a> Walk<'a> {
    /// What an element says of how it is put on what is below it, for what was made of it, in its own user units.
    pub(super) fn layered<T: Layered>(
        &mut self,
        made: T,
        own: &Own,
        bounds: Option<Cell>,
        (element, viewport): (Element<'_>, Point),
    ) -> Result<T, ReadError> {
        let mut made = made;
        if let Some(id) = &own.filter {
            for effect in self.effects(id, element) {
                made = match effect {
                    Effect::Blur { radius } => made.blurred(radius),
                    Effect::Shadow { step, radius, colour } => made.shadow(step, radius, colour),
                };
            }
        }
        if let Some(id) = &own.clip {
            match (Clips { document: self.document, viewport, bounds }).of(id, 0) {
                Ok(path) => made = made.clipped(path),
                Err(told) => self.note(start_of(element), told),
            }
        }
        if let Some(id) = &own.mask
            && let Some((mask, kind)) = self.mask(id, bounds, (element, viewport))?
        {
            made = made.masked_by(mask, kind);
        }
        Ok(if own.blend == BlendMode::Normal { made } else { made.blend(own.blend) })
    }

    fn mask(
        &mut self,
        id: &str,
        bounds: Option<Cell>,
        (element, viewport): (Element<'_>, Point),
    ) -> Result<Option<(Group, MaskKind)>, ReadError> {
        let Some(mask) = self.document.by_id(id).filter(|mask| name(*mask) == "mask") else {
            self.note(
                start_of(element),
                format!("the mask \"{}\" is not in the document: left out", shortened(id)),
            );
            return Ok(None);
        };
        if self.uses.contains(&mask.id()) {
            self.note(start_of(element), "a mask that is masked by itself is left out".to_owned());
            return Ok(None);
        }
        let boxed = |name: &str, by_default: bool| match mask.attribute(name) {
            Some(text) => text == "objectBoundingBox",
            None => by_default,
        };
        let (shares, content) = (boxed("maskUnits", true), boxed("maskContentUnits", false));
        let frame = bounds.unwrap_or(Cell { min: Point::ZERO, max: Point::ZERO });
        let side = |name: &str, along: Along, default: &str| {
            let text = mask.attribute(name).unwrap_or(default);
            let room = if shares { Point::ONE } else { viewport };
            length(text, along, room).unwrap_or(0.0)
        };
        let corner = Point::new(side("x", Along::X, "-10%"), side("y", Along::Y, "-10%"));
        let size = Point::new(side("width", Along::X, "120%"), side("height", Along::Y, "120%"));
        let (corner, size) =
            if shares { (frame.min + corner * frame.size(), size * frame.size()) } else { (corner, size) };
        let by = if content {
            Affine::from_translation(frame.min) * Affine::from_scale(frame.size())
        } else {
            Affine::IDENTITY
        };
        let kind = match self.document.property(mask, "mask-type") {
            Some("alpha") => MaskKind::Alpha,
            _ => MaskKind::Luminance,
        };
        let from = self.handed_down(mask, viewport);
        let mut nodes = Vec::new();
        self.uses.push(mask.id());
        let made = self.inside(mask, &from, by, &mut nodes);
        self.uses.pop();
        made?;
        let region = rectangle(corner, size.x.max(0.0), size.y.max(0.0));
        Ok(Some((group().add_all(nodes).clipped(region), kind)))
    }

    /// The effects of a filter: blurs and shadows in a row, which is what is understood of filters.
    fn effects(&mut self, id: &str, element: Element<'_>) -> Vec<Effect> {
        let document = self.document;
        let Some(filter) = document.by_id(id).filter(|filter| name(*filter) == "filter") else {
            self.note(
                start_of(element),
                format!("the filter \"{}\" is not understood: left out", shortened(id)),
            );
            return Vec::new();
        };
        let mut effects = Vec::new();
        for step in children(filter) {
            let deviation = || {
                let text = step.attribute("stdDeviation").unwrap_or("0");
                match numbers(text).as_deref() {
                    Some([both]) => Some(*both),
                    Some([x, y]) if x == y => Some(*x),
                    _ => None,
                }
            };
            let value = |name: &str, default: f64| {
                let text = step.attribute(name).and_then(numbers);
                text.and_then(|all| all.first().copied()).unwrap_or(default)
            };
            let plain = |name: &str| step.attribute(name).is_none_or(|text| text == "SourceGraphic");
            let own = plain("in") || effects.is_empty();
            let effect = match (name(step), deviation()) {
                ("feGaussianBlur", Some(radius)) if own => Some(Effect::Blur { radius: radius.max(0.0) }),
                ("feDropShadow", Some(radius)) if own => Some(Effect::Shadow {
                    step: Point::new(value("dx", 2.0), value("dy", 2.0)),
                    radius: radius.max(0.0),
                    colour: self.colour(step, "flood-color", "flood-opacity"),
                }),
                _ => None,
            };
            let Some(effect) = effect else {
                let told =
                    format!("the filter step <{}> is not understood: the filter is left out", name(step));
                self.note(start_of(step), told);
                return Vec::new();
            };
            effects.push(effect);
        }
        effects
    }
}

/// The bounds of some nodes, lines alone.
pub(super) fn bounds_of(nodes: &[Node]) -> Option<Cell> {
    nodes.iter().filter_map(Node::bounds).reduce(Cell::union)
}

/// Whether a language is ours or none is asked for.
pub(super) fn is_spoken(languages: Option<&str>) -> bool {
    languages.is_none_or(|all| all.split(',').any(|one| one.trim().to_ascii_lowercase().starts_with("en")))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::ground::Named;

    #[test]
    fn every_mode_is_known_by_its_name() {
        for (name, mode) in BlendMode::NAMES.iter().zip(BlendMode::VALUES) {
            let mut own = Own::default();
            let around = Own::default();
            assert_eq!((own.take("mix-blend-mode", name, &around), own.blend), (Taken::Yes, *mode));
        }
        let unknown = Own::default().take("mix-blend-mode", "plus-lighter", &Own::default());
        assert_eq!(unknown, Taken::BadValue);
        assert!(is_spoken(Some("de, en-GB")) && !is_spoken(Some("de")) && is_spoken(None));
    }
}
