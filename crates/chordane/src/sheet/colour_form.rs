//! The serde form of colours.

use serde::{Deserialize, Deserializer, Serialize, Serializer, de};

use super::Colour;

/// A CSS colour: `"#c8553d"`, or `"rgb(78.4% 33.35% 23.9% / 0.5)"` (accurate to about 1e-6) for one that eight bits cannot represent.
impl Serialize for Colour {
    fn serialize<S: Serializer>(&self, to: S) -> Result<S::Ok, S::Error> {
        let hex = self.hex();
        if Self::parse(&hex).is_ok_and(|colour| colour == *self) {
            return to.serialize_str(&hex);
        }
        let [red, green, blue] = [self.red, self.green, self.blue].map(|channel| channel * 100.0);
        to.collect_str(&format_args!("rgb({red}% {green}% {blue}% / {})", self.alpha))
    }
}

impl<'de> Deserialize<'de> for Colour {
    fn deserialize<D: Deserializer<'de>>(from: D) -> Result<Self, D::Error> {
        let text = std::borrow::Cow::<str>::deserialize(from)?;
        Self::parse(&text).map_err(de::Error::custom)
    }
}
