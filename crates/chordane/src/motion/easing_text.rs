//! Easings by their texts, as the recommendation "CSS Easing Functions" writes them.

use super::curve::Curve;
use crate::ground::{Fault, nearest};

const NAMES: &[&str] = &["linear", "ease", "ease-in", "ease-out", "ease-in-out", "step-start", "step-end"];
const FUNCTIONS: &[&str] = &["cubic-bezier", "steps", "linear", "spring"];

/// The easing of a text, or what is wrong with it.
pub(super) fn read(text: &str) -> Result<Curve, Fault> {
    let text = text.trim().to_ascii_lowercase();
    let unknown = |near: &str| {
        let near = nearest(near, NAMES.iter().chain(FUNCTIONS).copied());
        let hint = near.map(|near| format!(" (did you mean \"{near}\"?)")).unwrap_or_default();
        let give = "give a CSS easing such as \"ease-in-out\", \"cubic-bezier(0.4, 0, 0.2, 1)\" or \"steps(4)\", or \"spring(120, 9)\"";
        Fault::new("ease", format!("\"{text}\" is not an easing{hint}; {give}"))
    };
    let Some((name, inside)) = text.strip_suffix(')').and_then(|text| text.split_once('(')) else {
        return match text.as_str() {
            "linear" => Ok(Curve::Linear),
            "ease" => Curve::cubic_bezier(0.25, 0.1, 0.25, 1.0),
            "ease-in" => Curve::cubic_bezier(0.42, 0.0, 1.0, 1.0),
            "ease-out" => Curve::cubic_bezier(0.0, 0.0, 0.58, 1.0),
            "ease-in-out" => Curve::cubic_bezier(0.42, 0.0, 0.58, 1.0),
            "step-start" => Curve::steps(1, "jump-start".into()),
            "step-end" => Curve::steps(1, "jump-end".into()),
            _ => return Err(unknown(&text)),
        };
    };
    let parts: Vec<&str> = inside.split(',').map(str::trim).collect();
    let number = |part: &&str| part.parse::<f64>().ok().filter(|number| number.is_finite());
    let numbers: Option<Vec<f64>> = parts.iter().map(number).collect();
    let wants = |what: &str| Fault::new("ease", format!("\"{text}\" is not an easing; {name} wants {what}"));
    match (name, numbers.as_deref(), parts.as_slice()) {
        ("cubic-bezier", Some(&[x1, y1, x2, y2]), _) => Curve::cubic_bezier(x1, y1, x2, y2),
        ("cubic-bezier", ..) => Err(wants("four numbers: cubic-bezier(0.4, 0, 0.2, 1)")),
        ("spring", Some(&[stiffness, damping]), _) => Curve::spring(stiffness, damping),
        ("spring", ..) => Err(wants("a stiffness and a damping: spring(120, 9)")),
        ("steps", _, [count] | [count, _]) if count.parse::<usize>().is_ok() => {
            let jump = parts.get(1).copied().unwrap_or("jump-end");
            Curve::steps(count.parse().unwrap_or(0), jump.into())
        }
        ("steps", ..) => Err(wants("a whole number and where to jump: steps(4, jump-end)")),
        ("linear", ..) => points(&parts).map_or_else(
            || Err(wants("numbers with places between them: linear(0, 0.5 25%, 1)")),
            Curve::through,
        ),
        _ => Err(unknown(name)),
    }
}

/// The points of `linear(..)`: each a number with none, one or two places in per cent. What has no place lies evenly between its neighbours, and
/// none lies before the one in front of it.
fn points(parts: &[&str]) -> Option<Vec<(f64, f64)>> {
    let mut given: Vec<(Option<f64>, f64)> = Vec::new();
    for part in parts {
        let (mut value, mut places) = (None, Vec::new());
        for word in part.split_ascii_whitespace() {
            match word.strip_suffix('%') {
                Some(place) => places.push(place.parse::<f64>().ok()? / 100.0),
                None if value.is_none() => value = Some(word.parse::<f64>().ok()?),
                None => return None,
            }
        }
        let value = value?;
        match places.as_slice() {
            [] => given.push((None, value)),
            [place] => given.push((Some(*place), value)),
            [first, second] => given.extend([(Some(*first), value), (Some(*second), value)]),
            _ => return None,
        }
    }
    if let Some(first) = given.first_mut() {
        first.0.get_or_insert(0.0);
    }
    if let Some(last) = given.last_mut() {
        last.0.get_or_insert(1.0);
    }
    let mut largest = f64::MIN;
    for place in given.iter_mut().filter_map(|(place, _)| place.as_mut()) {
        largest = largest.max(*place);
        *place = largest;
    }
    let mut done: Vec<(f64, f64)> = Vec::new();
    let mut waiting: Vec<f64> = Vec::new();
    for (place, value) in given {
        let Some(place) = place else {
            waiting.push(value);
            continue;
        };
        let from = done.last().map_or(place, |last| last.0);
        let pieces = waiting.len() as f64 + 1.0;
        let between = waiting
            .drain(..)
            .zip(1_u32..)
            .map(|(value, i)| (from + (place - from) * f64::from(i) / pieces, value));
        done.extend(between);
        done.push((place, value));
    }
    Some(done)
}

#[cfg(test)]
mod tests {
    use super::super::Easing;
    use super::*;

    #[test]
    fn texts_are_read_as_the_recommendation_says() {
        assert_eq!(points(&["0", "0.25", "1"]), Some(vec![(0.0, 0.0), (0.5, 0.25), (1.0, 1.0)]));
        assert_eq!(
            points(&["0 10%", "0.5 20% 40%", "0.7", "1"]),
            Some(vec![(0.1, 0.0), (0.2, 0.5), (0.4, 0.5), (0.7, 0.7), (1.0, 1.0)])
        );
        assert_eq!(points(&["0", "30% 0.5", "1 20%"]), Some(vec![(0.0, 0.0), (0.3, 0.5), (0.3, 1.0)]));
        assert_eq!(points(&["0 0"]), None);
        assert_eq!(Easing::from(" EASE-IN ").at(0.3), Easing::cubic_bezier(0.42, 0.0, 1.0, 1.0).at(0.3));
        assert_eq!(Easing::from("steps( 3 , start )").at(0.0), 1.0 / 3.0);
        assert_eq!(Easing::from("step-start").at(0.0), 1.0);
        assert_eq!(Easing::from("step-end").at(0.99), 0.0);
    }

    #[test]
    fn what_is_no_easing_is_told() {
        let told = |text: &str| Easing::from(text).sound().unwrap_err().to_string();
        assert_eq!(
            told("ease-inn"),
            "`ease`: \"ease-inn\" is not an easing (did you mean \"ease-in\"?); give a CSS easing such as \"ease-in-out\", \"cubic-bezier(0.4, 0, 0.2, 1)\" or \"steps(4)\", or \"spring(120, 9)\""
        );
        assert_eq!(
            told("cubic-bezier(1.4, 0, 0, 1)"),
            "`cubic-bezier`: the first x 1.4 is out of range; give 0 to 1"
        );
        assert!(
            told("cubic-bezier(1, 0)")
                .ends_with("cubic-bezier wants four numbers: cubic-bezier(0.4, 0, 0.2, 1)")
        );
        assert_eq!(told("steps(0)"), "`steps`: the number of steps 0 is out of range; give 1 to 1000000");
        assert!(told("steps(3, jump)").starts_with("`steps`: \"jump\" is not a kind of jump"));
        assert!(told("steps(x)").contains("steps wants a whole number"));
        assert!(told("linear(1)").contains("needs two of them"));
        assert!(told("linear(1 2, 3)").contains("linear wants numbers"));
        assert!(told("spring(1, 0)").contains("the damping 0 is out of range"));
        assert!(told("spring(100, 0.1)").contains("the damping 0.1 is out of range; give 0.2 or more"));
        assert!(told("").contains("is not an easing"));
        assert_eq!(Easing::from("wing").at(0.3), 0.3);
    }
}
