//! How SVG's animation elements say that an attribute changes from frame to frame.

use std::fmt::Write;

use super::keys::{Keys, keys};
use super::pattern::{PATH_CHANGES, Pattern};
use super::refine::refined;
use crate::motion::Parts;
use crate::number::{Angle, Point};
use crate::path::{Affine, Path};
use crate::sheet::Colour;
use crate::write::element::Value;
use crate::write::svg_text::plain;
use crate::write::svg_text::rounded;

/// How the values of an attribute go over into one another.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Kind {
    /// One number or several, in the unit of the sheet or as shares of one.
    Lengths,
    Shares,
    Colour,
    Data,
    Transform,
    /// Not at all: from one frame to the next.
    Steps,
}

/// Attributes that can move, how, and what they are where they are not written.
const ANIMATED_ATTRIBUTES: &[(&str, Kind, Option<&str>)] = &[
    ("opacity", Kind::Shares, Some("1")),
    ("fill-opacity", Kind::Shares, Some("1")),
    ("stroke-opacity", Kind::Shares, Some("1")),
    ("stop-opacity", Kind::Shares, Some("1")),
    ("flood-opacity", Kind::Shares, Some("1")),
    ("offset", Kind::Shares, None),
    ("x1", Kind::Shares, None),
    ("y1", Kind::Shares, None),
    ("x2", Kind::Shares, None),
    ("y2", Kind::Shares, None),
    ("cx", Kind::Shares, None),
    ("cy", Kind::Shares, None),
    ("r", Kind::Shares, None),
    ("fx", Kind::Shares, None),
    ("fy", Kind::Shares, None),
    ("x", Kind::Lengths, Some("0")),
    ("y", Kind::Lengths, Some("0")),
    ("width", Kind::Lengths, None),
    ("height", Kind::Lengths, None),
    ("viewBox", Kind::Lengths, None),
    ("dx", Kind::Lengths, None),
    ("dy", Kind::Lengths, None),
    ("stdDeviation", Kind::Lengths, None),
    ("stroke-width", Kind::Lengths, Some("1")),
    ("stroke-miterlimit", Kind::Lengths, Some("4")),
    ("stroke-dasharray", Kind::Lengths, None),
    ("stroke-dashoffset", Kind::Lengths, Some("0")),
    ("fill", Kind::Colour, None),
    ("stroke", Kind::Colour, None),
    ("stop-color", Kind::Colour, None),
    ("flood-color", Kind::Colour, None),
    ("d", Kind::Data, None),
    ("transform", Kind::Transform, Some("")),
    ("gradientTransform", Kind::Transform, Some("")),
    ("patternTransform", Kind::Transform, Some("")),
    ("fill-rule", Kind::Steps, Some("nonzero")),
    ("clip-rule", Kind::Steps, Some("nonzero")),
    ("stroke-linecap", Kind::Steps, Some("butt")),
    ("stroke-linejoin", Kind::Steps, Some("miter")),
    ("visibility", Kind::Steps, Some("visible")),
];

/// A share, an opacity or a turn in radians that is off by less cannot be seen.
const FRACTION_TOLERANCE: f64 = 5e-4;

/// A channel of eight bits that is off by less is still the same but for rounding.
const CHANNEL_TOLERANCE: f64 = 0.75;

/// What goes with every animation of a document.
#[derive(Clone, Copy, Debug)]
pub(super) struct Loop {
    pub(super) seconds: f64,
    /// Decimals of lengths.
    pub(super) decimals: usize,
    /// The longer side of the sheet.
    pub(super) side: f64,
}

impl Loop {
    /// The animation elements of an attribute that changes, and its value in the first frame where that is not the frame's own. The error says what
    /// is not the same in all frames.
    pub(super) fn animated(&self, name: &str, values: &[Value]) -> Result<String, String> {
        let row = ANIMATED_ATTRIBUTES.iter().find(|row| row.0 == name);
        let &(_, kind, default) = row.ok_or_else(|| wording(name).to_owned())?;
        let texts = || -> Result<Vec<&str>, String> {
            let text = |value: &'_ Value| match value {
                Value::Absent => default,
                _ => None,
            };
            values
                .iter()
                .map(|value| value.text().or_else(|| text(value)).ok_or_else(|| wording(name).to_owned()))
                .collect()
        };
        match kind {
            Kind::Steps => Ok(self.steps(name, &texts()?)),
            Kind::Colour => self.colours(name, &texts()?),
            Kind::Transform => Ok(self.transforms(name, &texts()?)),
            Kind::Data => self.data(values),
            Kind::Shares => self.numbers(name, &texts()?, FRACTION_TOLERANCE),
            Kind::Lengths => self.numbers(name, &texts()?, self.finest(self.decimals)),
        }
    }

    fn finest(&self, decimals: usize) -> f64 {
        10_f64.powi(-i32::try_from(decimals).unwrap_or(12))
    }

    /// What every animation element ends with.
    fn timing(&self, times: Option<&[f64]>, out: &mut String) {
        if let Some(times) = times {
            let texts: Vec<String> = times.iter().map(|time| plain((time * 1e6).round() / 1e6)).collect();
            let _ = write!(out, " keyTimes=\"{}\"", texts.join(";"));
        }
        let _ = write!(out, " dur=\"{}s\" repeatCount=\"indefinite\"/>", plain(self.seconds));
    }

    /// An animation of keys, as texts.
    fn of_keys(&self, begin: &str, keys: &Keys, text: impl Fn(&[f64]) -> String) -> String {
        let values: Vec<String> = keys.values.iter().map(|value| text(value)).collect();
        let mut out = format!("{begin} values=\"{}\"", values.join(";"));
        let last = (keys.times.len().max(2) - 1) as f64;
        let even = keys.times.iter().enumerate().all(|(i, time)| (time - i as f64 / last).abs() < 1e-9);
        self.timing((!even).then_some(&keys.times), &mut out);
        out
    }

    fn numbers(&self, name: &str, texts: &[&str], tolerance: f64) -> Result<String, String> {
        let frames = same_count(texts.iter().map(|text| numbers(text)).collect(), name)?;
        let keys = looped(&frames, tolerance);
        Ok(self.of_keys(&animate(name), &keys, |value| joined(value, tolerance)))
    }

    fn colours(&self, name: &str, texts: &[&str]) -> Result<String, String> {
        let frames: Option<Vec<Vec<f64>>> = texts.iter().map(|text| channels(text)).collect();
        let frames = frames.ok_or_else(|| wording(name).to_owned())?;
        let keys = looped(&frames, CHANNEL_TOLERANCE);
        Ok(self.of_keys(&animate(name), &keys, |value| {
            let digits: String = value
                .iter()
                .map(|channel| format!("{:02x}", channel.round().clamp(0.0, 255.0) as u8))
                .collect();
            format!("#{digits}")
        }))
    }

    /// Values that change from one frame to the next.
    fn steps(&self, name: &str, texts: &[&str]) -> String {
        let mut out = animate(name);
        let changes: Vec<usize> = (0..texts.len())
            .filter(|i| i.checked_sub(1).is_none_or(|j| texts.get(j) != texts.get(*i)))
            .collect();
        let values: Vec<&str> = changes.iter().filter_map(|i| texts.get(*i).copied()).collect();
        let times: Vec<f64> = changes.iter().map(|i| *i as f64 / texts.len() as f64).collect();
        let _ = write!(out, " calcMode=\"discrete\" values=\"{}\"", values.join(";"));
        self.timing(Some(&times), &mut out);
        out
    }

    /// A transform as its parts, each of which moves by itself, from the last to the first of them applied.
    fn transforms(&self, name: &str, texts: &[&str]) -> String {
        let (frames, end) = parts(&texts.iter().map(|text| affine(text)).collect::<Vec<_>>());
        let length = self.finest(self.decimals);
        // What a turn or a factor is off by shows at the end of a thing as large as the sheet.
        let share = (length / self.side.max(1.0)).min(FRACTION_TOLERANCE);
        type One = fn(&Parts) -> Vec<f64>;
        let kinds: [(&str, One, &[f64], f64); 4] = [
            ("translate", |parts| vec![parts.step.x, parts.step.y], &[0.0, 0.0], length),
            ("rotate", |parts| vec![parts.turn.degrees()], &[0.0], share.to_degrees()),
            ("skewX", |parts| vec![parts.slant.atan().to_degrees()], &[0.0], share.to_degrees()),
            ("scale", |parts| vec![parts.scale.x, parts.scale.y], &[1.0, 1.0], share),
        ];
        let mut out = String::new();
        for (kind, one, rest, tolerance) in kinds {
            let numbers: Vec<Vec<f64>> = frames.iter().map(one).collect();
            let off = |all: &Vec<f64>| all.iter().zip(rest).any(|(a, b)| (a - b).abs() > tolerance * 1e-3);
            if !numbers.iter().any(off) {
                continue;
            }
            let keys = keys(&numbers, &one(&end), tolerance);
            let sum = if out.is_empty() { "" } else { " additive=\"sum\"" };
            let begin = format!("<animateTransform attributeName=\"{name}\" type=\"{kind}\"{sum}");
            out.push_str(&self.of_keys(&begin, &keys, |value| joined(value, tolerance)));
        }
        out
    }

    /// Path data whose commands are the same in all frames.
    fn data(&self, values: &[Value]) -> Result<String, String> {
        let cut = if same_segments(values) { None } else { refined(values) };
        let values = cut.as_deref().unwrap_or(values);
        let paths: Option<Vec<&Path>> = values.iter().map(Value::path).collect();
        let paths = paths.ok_or_else(|| PATH_CHANGES.to_owned())?;
        let decimals = values.iter().find_map(|value| match value {
            Value::Path(_, decimals) => Some(*decimals),
            _ => None,
        });
        let tolerance = self.finest(decimals.unwrap_or(self.decimals));
        let pattern = Pattern::of(&paths)?;
        let frames: Vec<Vec<f64>> = paths.iter().map(|path| pattern.numbers(path)).collect();
        let keys = looped(&frames, tolerance);
        Ok(self.of_keys(&animate("d"), &keys, |value| pattern.text(value, tolerance)))
    }
}

fn animate(name: &str) -> String {
    format!("<animate attributeName=\"{name}\"")
}

/// What people call an attribute that changes in a way that cannot be said.
fn wording(name: &str) -> &'static str {
    match name {
        "fill" => "its fill changes to another kind of paint",
        "stroke" => "its stroke changes to another kind of paint",
        "stroke-dasharray" => "the number of its dashes changes",
        "d" => PATH_CHANGES,
        "style" => "its blend mode or isolation changes",
        "clip-path" => "its clip is not there in every frame",
        "mask" => "its mask is not there in every frame",
        "filter" => "its effects are not there in every frame",
        "href" => "its picture changes",
        "id" => "its name changes",
        "spreadMethod" | "gradientUnits" => "the way its gradient is spread changes",
        "vector-effect" => "it is painted in some frames and not in others",
        _ => "its attributes change",
    }
}

/// Keys of what begins again as it began.
fn looped(frames: &[Vec<f64>], tolerance: f64) -> Keys {
    let end = frames.first().map(Vec::as_slice).unwrap_or_default();
    keys(frames, end, tolerance)
}

fn same_count(frames: Option<Vec<Vec<f64>>>, name: &str) -> Result<Vec<Vec<f64>>, String> {
    let frames = frames.ok_or_else(|| wording(name).to_owned())?;
    let same = frames.windows(2).all(|pair| pair.first().map(Vec::len) == pair.last().map(Vec::len));
    if same { Ok(frames) } else { Err(wording(name).to_owned()) }
}

fn numbers(text: &str) -> Option<Vec<f64>> {
    text.split_ascii_whitespace().map(|number| number.parse().ok()).collect()
}

fn channels(text: &str) -> Option<Vec<f64>> {
    if !text.starts_with('#') {
        return None;
    }
    let [red, green, blue, _] = Colour::parse(text).ok()?.to_rgba8();
    Some([red, green, blue].map(f64::from).to_vec())
}

fn joined(value: &[f64], tolerance: f64) -> String {
    value.iter().map(|number| rounded(*number, tolerance)).collect::<Vec<_>>().join(" ")
}

/// A transform as we write it.
fn affine(text: &str) -> Affine {
    let inner = |name: &str| text.strip_prefix(name)?.strip_suffix(')');
    let all = inner("translate(").or_else(|| inner("matrix(")).and_then(numbers).unwrap_or_default();
    match *all.as_slice() {
        [x, y] => Affine::from_translation(Point::new(x, y)),
        [a, b, c, d, e, f] => Affine::from_cols_array(&[a, b, c, d, e, f]),
        _ => Affine::IDENTITY,
    }
}

/// The parts of transforms, each near to those before it, and those of the first again, as the last ones go over into them.
fn parts(frames: &[Affine]) -> (Vec<Parts>, Parts) {
    let begin = frames.iter().find_map(Parts::of).unwrap_or(Parts::of_flat(&Affine::IDENTITY, Angle::ZERO));
    let mut last = begin.turn;
    let mut near = |by: &Affine| {
        let own = Parts::of(by).unwrap_or_else(|| Parts::of_flat(by, last)).near(last);
        last = own.turn;
        own
    };
    let all: Vec<Parts> = frames.iter().map(&mut near).collect();
    let end = frames.first().map_or(begin, near);
    (all, end)
}

/// Whether all paths have contours and segments that go over into one another.
pub(super) fn same_segments(values: &[Value]) -> bool {
    let paths: Option<Vec<&Path>> = values.iter().map(Value::path).collect();
    paths.is_some_and(|paths| Pattern::of(&paths).is_ok())
}
