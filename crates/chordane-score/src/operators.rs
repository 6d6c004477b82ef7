//! Operators on our own kinds, and division as people mean it.

use chordane::ground::plain_number;
use chordane::prelude::*;
use rhai::{Dynamic, EvalAltResult, FuncRegistration, Module, RhaiNativeFunc, Variant};

use crate::call_error::CallError;
use crate::values;

/// Adds an operator.
fn add<A: 'static, const N: usize, const X: bool, R: Variant + Clone, const F: bool>(
    module: &mut Module,
    name: &str,
    operator: impl RhaiNativeFunc<A, N, X, R, F> + Send + Sync + 'static,
) {
    FuncRegistration::new(name).in_global_namespace().set_into_module(module, operator);
}

/// Operators on our own kinds, and division as people mean it.
pub(crate) fn operators(module: &mut Module) {
    add(module, "/", |a: i64, b: i64| match a.checked_rem(b) {
        Some(0) => Dynamic::from_int(a / b),
        _ => Dynamic::from_float(a as f64 / b as f64),
    });
    add(module, "**", |a: i64, b: i64| {
        let whole = u32::try_from(b).ok().and_then(|b| a.checked_pow(b));
        whole.map_or_else(|| Dynamic::from_float((a as f64).powf(b as f64)), Dynamic::from_int)
    });
    add(module, "!", |a: bool| !a);
    // A number in a text, as people write it: without needless decimals.
    add(module, "+", |a: &str, b: i64| format!("{a}{b}"));
    add(module, "+", |a: &str, b: f64| format!("{a}{b}"));
    add(module, "+", |a: i64, b: &str| format!("{a}{b}"));
    add(module, "+", |a: f64, b: &str| format!("{a}{b}"));
    add(module, "+", |a: Point, b: Point| a + b);
    add(module, "-", |a: Point, b: Point| a - b);
    add(module, "-", |a: Point| -a);
    // A pair is a point here too; a list on the left stays a list.
    let pair = |list: rhai::Array| {
        values::point(&Dynamic::from_array(list))
            .ok_or_else(|| CallError::new("this list is not a point").advise("write pt(x, y) or [x, y]"))
    };
    add(module, "+", move |a: Point, b: rhai::Array| Ok::<_, Box<EvalAltResult>>(a + pair(b)?));
    add(module, "-", move |a: Point, b: rhai::Array| Ok::<_, Box<EvalAltResult>>(a - pair(b)?));
    add(module, "==", |a: Point, b: Point| a == b);
    add(module, "!=", |a: Point, b: Point| a != b);
    add(module, "+", |a: Angle, b: Angle| a + b);
    add(module, "-", |a: Angle, b: Angle| a - b);
    add(module, "-", |a: Angle| -a);
    add(module, "+", |a: Extent, b: Extent| a + b);
    add(module, "-", |a: Extent, b: Extent| a - b);
    add(module, "-", |a: Extent| -a);
    add(module, "/", |a: Angle, b: Angle| a / b);
    add(module, "==", |a: Colour, b: Colour| a == b);
    add(module, "!=", |a: Colour, b: Colour| a != b);
    add(module, "==", |a: Angle, b: Angle| a == b);
    add(module, "!=", |a: Angle, b: Angle| a != b);
    add(module, "<", |a: Angle, b: Angle| a < b);
    add(module, ">", |a: Angle, b: Angle| a > b);
    add(module, "<=", |a: Angle, b: Angle| a <= b);
    add(module, ">=", |a: Angle, b: Angle| a >= b);
    macro_rules! scaled_by {
        ($number:ty) => {
            add(module, "*", |a: Point, k: $number| a * k as f64);
            add(module, "*", |k: $number, a: Point| a * k as f64);
            add(module, "/", |a: Point, k: $number| a / k as f64);
            add(module, "*", |a: Angle, k: $number| a * k as f64);
            add(module, "*", |k: $number, a: Angle| a * k as f64);
            add(module, "/", |a: Angle, k: $number| a / k as f64);
            add(module, "+", |a: Extent, k: $number| a + k as f64);
            add(module, "+", |k: $number, a: Extent| a + k as f64);
            add(module, "-", |a: Extent, k: $number| a - k as f64);
            add(module, "-", |k: $number, a: Extent| Extent::from(k as f64) - a);
            add(module, "*", |a: Extent, k: $number| a * k as f64);
            add(module, "*", |k: $number, a: Extent| a * k as f64);
            add(module, "/", |a: Extent, k: $number| a / k as f64);
        };
    }
    scaled_by!(i64);
    scaled_by!(f64);
    // Ends of a range that were computed, and so may be whole numbers written as decimals.
    let end = |n: f64| -> Result<i64, Box<EvalAltResult>> {
        if n.trunc() == n && n.abs() < 1e15 {
            Ok(n as i64)
        } else {
            Err(CallError::new(format!(
                "a range counts in whole numbers, and {} is not one",
                plain_number(n)
            ))
            .advise("round it first: round(..), floor(..) or ceil(..)")
            .into())
        }
    };
    add(module, "..", move |a: f64, b: f64| Ok::<_, Box<EvalAltResult>>(end(a)?..end(b)?));
    add(module, "..", move |a: i64, b: f64| Ok::<_, Box<EvalAltResult>>(a..end(b)?));
    add(module, "..=", move |a: i64, b: f64| Ok::<_, Box<EvalAltResult>>(a..=end(b)?));
    add(module, "..=", move |a: f64, b: f64| Ok::<_, Box<EvalAltResult>>(end(a)?..=end(b)?));
}
