//! Values taken out of the engine's own.

use chordane::prelude::*;
use chordane::sheet::Node;
use rhai::{Array, Dynamic};

use super::Builder;

/// A number that can be computed with; one that is not finite is none.
pub(crate) fn number(value: &Dynamic) -> Option<f64> {
    any_number(value).filter(|number| number.is_finite())
}

pub(crate) fn any_number(value: &Dynamic) -> Option<f64> {
    value.as_float().ok().or_else(|| value.as_int().ok().map(|whole| whole as f64))
}

/// A whole number from 0 up, also when it is written `12.0`.
pub(crate) fn count(value: &Dynamic) -> Option<usize> {
    number(value).filter(|n| *n >= 0.0 && n.trunc() == *n && *n < 1e15).map(|n| n as usize)
}

pub(crate) fn point(value: &Dynamic) -> Option<Point> {
    if let Some(p) = value.read_lock::<Point>() {
        return Some(*p);
    }
    let list = value.read_lock::<Array>()?;
    match list.as_slice() {
        [x, y] => Some(pt(any_number(x)?, any_number(y)?)),
        _ => None,
    }
}

pub(crate) fn vertex(value: &Dynamic) -> Option<Vertex> {
    let made = value.read_lock::<Vertex>().map(|vertex| vertex.clone());
    made.or_else(|| point(value).map(soft))
}

/// An extent; a plain number is a fixed length.
pub(crate) fn extent(value: &Dynamic) -> Option<Extent> {
    let made = value.read_lock::<Extent>().map(|extent| *extent);
    made.or_else(|| number(value).map(Extent::from))
}

pub(crate) fn node(value: &Dynamic) -> Option<Node> {
    if let Some(path) = value.read_lock::<Path>() {
        return Some(path.clone().into());
    }
    if let Some(item) = value.read_lock::<Item>() {
        return Some(item.clone().into());
    }
    value.read_lock::<Builder<Group>>().map(|group| group.get().into())
}

/// The numbers that a number, an angle (in degrees), a point or a colour consists of; none of others.
pub(crate) fn numbers_in(value: &Dynamic) -> Vec<f64> {
    if let Some(number) = any_number(value) {
        return vec![number];
    }
    if let Some(angle) = value.read_lock::<Angle>() {
        return vec![angle.degrees()];
    }
    if let Some(colour) = value.read_lock::<Colour>() {
        return [colour.red, colour.green, colour.blue, colour.alpha].map(f64::from).to_vec();
    }
    value.read_lock::<Point>().map_or(Vec::new(), |point| vec![point.x, point.y])
}
