//! Pictures inside text, as data URLs.

use crate::ground::Fault;
use crate::sheet::Picture;

/// A picture as a data URL: its own file where it came from one, else a PNG file.
///
/// # Errors
///
/// A fault without the feature `png`.
#[cfg(feature = "png")]
pub(super) fn of_picture(picture: &Picture) -> Result<String, Fault> {
    use base64::Engine;
    use base64::engine::general_purpose::STANDARD;
    let of = |media: &str, bytes: &[u8]| format!("data:{media};base64,{}", STANDARD.encode(bytes));
    if let Some(original) = picture.original() {
        return Ok(of(original.media, &original.bytes));
    }
    let mut bytes = Vec::new();
    let mut encoder = png::Encoder::new(&mut bytes, picture.width(), picture.height());
    encoder.set_color(png::ColorType::Rgba);
    encoder.set_depth(png::BitDepth::Eight);
    let straight: Vec<[u8; 4]> = picture.straight().collect();
    let told =
        |error: png::EncodingError| Fault::new("svg", format!("the picture cannot be packed: {error}"));
    let mut writer = encoder.write_header().map_err(told)?;
    writer.write_image_data(straight.as_flattened()).map_err(told)?;
    writer.finish().map_err(told)?;
    Ok(of("image/png", &bytes))
}

/// A picture as a data URL.
#[cfg(not(feature = "png"))]
pub(super) fn of_picture(_: &Picture) -> Result<String, Fault> {
    Err(Fault::new("svg", "pictures in SVG files need the feature `png` of the library"))
}
