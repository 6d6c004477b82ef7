//! Pictures of pixels: read from files, painted with, and refused.

use chordane::prelude::*;
use chordane::read::PictureError;

/// A small picture of the first sail, as a camera might have saved it.
const SAIL: &[u8] = include_bytes!("sail.jpg");
#[test]
fn jpeg_files_are_read() {
    let picture = Picture::read(SAIL).unwrap();
    assert_eq!((picture.width(), picture.height()), (32, 24));
    let shown = sheet(32.0, 24.0).ground(&picture).pixels().unwrap();
    let near = |x, y, want: [u8; 3]| {
        let at = shown.at(x, y).unwrap();
        assert!((0..3).all(|c| at[c].abs_diff(want[c]) < 5), "{at:?} {want:?}");
    };
    near(0, 0, [250, 235, 232]);
    near(20, 12, [180, 126, 114]);
    // The file is carried along as it is.
    let text = sheet(32.0, 24.0).ground(&picture).svg().unwrap();
    assert!(text.contains("data:image/jpeg;base64,/9j/"));
    for cut in [2, 20, SAIL.len() / 2] {
        let wrong = Picture::read(&SAIL[..cut]);
        assert!(wrong.is_err() || cut > 20, "{cut}");
    }
    // The head alone says that it is too large.
    let at = SAIL.windows(2).position(|pair| pair == [0xff, 0xc0]).unwrap();
    let mut huge = SAIL.to_vec();
    huge[at + 5..at + 9].copy_from_slice(&[0xea, 0x60, 0xea, 0x60]);
    assert!(Picture::read(&huge).is_err());
}

#[test]
fn png_files_of_every_kind_are_read() {
    let page = sheet(4.0, 2.0).add(rectangle((0.0, 0.0), 2.0, 2.0).fill("rgb(200 85 61 / 50%)"));
    let pixels = page.pixels().unwrap();
    let picture = Picture::read(&pixels.png().unwrap()).unwrap();
    let shown = sheet(4.0, 2.0).ground(picture.sampled("nearest")).pixels().unwrap();
    for (a, b) in shown.as_slice().iter().zip(pixels.as_slice()) {
        assert!(a.iter().zip(b).all(|(a, b)| a.abs_diff(*b) <= 1), "{a:?} {b:?}");
    }
    // Grey with two bits a pixel.
    let mut grey = Vec::new();
    let mut encoder = png::Encoder::new(&mut grey, 4, 1);
    encoder.set_color(png::ColorType::Grayscale);
    encoder.set_depth(png::BitDepth::Two);
    let mut writer = encoder.write_header().unwrap();
    writer.write_image_data(&[0b00_01_10_11]).unwrap();
    writer.finish().unwrap();
    let grey = Picture::read(&grey).unwrap().sampled("nearest");
    let row = sheet(4.0, 1.0).ground(grey).pixels().unwrap();
    assert_eq!([0, 1, 2, 3].map(|x| row.at(x, 0).unwrap()[0]), [0, 85, 170, 255]);
}

#[test]
fn what_is_no_picture_is_refused() {
    let png = sheet(9.0, 9.0).ground("teal").pixels().unwrap().png().unwrap();
    assert_eq!(Picture::read(b"GIF89a"), Err(PictureError::NoPicture));
    assert!(matches!(Picture::read(&png[..40]), Err(PictureError::Broken(_))));
    let mut wide = Vec::new();
    let mut writer = png::Encoder::new(&mut wide, 20_000, 1).write_header().unwrap();
    writer.write_chunk(png::chunk::IDAT, &[120, 1]).unwrap();
    drop(writer);
    let told = Picture::read(&wide).unwrap_err().to_string();
    assert_eq!(
        told,
        "the picture has 20000 x 1 pixels, and no more than 16384 a side and 67108864 in all are read; make it smaller"
    );
    let told = Picture::from_rgba(2, 2, &[0; 4]).unwrap_err();
    assert_eq!(told.to_string(), "`picture`: expected 16 bytes for 2 x 2 pixels, got 4");
    assert!(Picture::from_rgba(0, 2, &[]).is_err());
}

#[test]
fn a_reduced_picture_is_the_mean_of_what_it_was() {
    // A fine chequer of black and white becomes an even grey.
    let chequer = (0..64 * 64).map(|i| if (i % 64 + i / 64) % 2 == 0 { [0, 0, 0, 255] } else { [255; 4] });
    let picture = Picture::from_rgba(64, 64, chequer.collect::<Vec<_>>().as_flattened()).unwrap();
    let small = sheet(7.0, 7.0).ground(picture).pixels().unwrap();
    assert!(small.as_slice().iter().all(|pixel| pixel[0].abs_diff(128) < 6), "{:?}", small.as_slice());
}

#[test]
fn patterns_that_cannot_be_are_faults_and_nested_ones_end() {
    let told = |pattern: Pattern| circle((5.0, 5.0), 4.0).fill(pattern).sound().unwrap_err().to_string();
    let dot = || circle((1.0, 1.0), 1.0).fill("red");
    assert_eq!(
        told(pattern(cell((0.0, 0.0), 0.0, 4.0), dot())),
        "`pattern`: the width 0 is not positive; give more than 0"
    );
    assert_eq!(
        told(pattern(cell((0.0, 0.0), 4.0, 4.0), dot()).scaled(0.0)),
        "`pattern`: the transform squashes the pattern flat; scale it by other factors than 0"
    );
    let bad = pattern(cell((0.0, 0.0), 4.0, 4.0), circle((1.0, 1.0), f64::NAN).fill("red").named("dot"));
    let page = sheet(9.0, 9.0).add(circle((5.0, 5.0), 4.0).fill(bad));
    assert!(page.sound().unwrap_err().to_string().starts_with("\"dot\": `circle`: the radius NaN"));
    let deep = (0..250).fold(dot(), |inner, _| dot().fill(pattern(cell((0.0, 0.0), 2.0, 2.0), inner)));
    let told = sheet(9.0, 9.0).add(deep).sound().map(drop).unwrap_err().to_string();
    assert!(told.contains("inside one another"), "{told}");
    let empty = by_vertex(Vec::<&str>::new());
    let told = circle((5.0, 5.0), 4.0).fill(empty).sound().unwrap_err().to_string();
    assert_eq!(told, "`by_vertex`: there are no colours; give one for each vertex");
}

/// Inside a triangle each colour counts by how near its corner is: the slow twin, from the formula.
#[test]
fn colours_by_vertex_are_mixed_by_nearness() {
    let (a, b, c) = (pt(2.0, 2.0), pt(38.0, 6.0), pt(10.0, 28.0));
    let shaded = Path::closed([a, b, c]).fill(by_vertex(["#ff0000", "#00ff00", "#0000ff"]));
    let pixels = sheet(40.0, 30.0).add(shaded.clone()).pixels().unwrap();
    let whole = (b - a).perp_dot(c - a);
    for (i, pixel) in pixels.as_slice().iter().enumerate().filter(|(_, pixel)| pixel[3] == 255) {
        let p = pt((i % 40) as f64 + 0.5, (i / 40) as f64 + 0.5);
        let shares = [(b - p).perp_dot(c - p), (c - p).perp_dot(a - p), (a - p).perp_dot(b - p)];
        for (channel, share) in pixel.iter().zip(shares) {
            let want = share / whole * 255.0;
            assert!((f64::from(*channel) - want).abs() < 2.5, "{p}: {pixel:?} {shares:?}");
        }
    }
}

#[test]
fn what_is_said_of_an_element_in_its_style_is_said_in_one_attribute() {
    let squares = Picture::from_rgba(2, 1, &[200, 85, 61, 255, 32, 48, 60, 255]).unwrap().sampled("nearest");
    let photo = rectangle((0.0, 0.0), 20.0, 10.0).fill(squares.fitted("stretch"));
    let page = sheet(20.0, 10.0).ground("teal").add(photo.clone()).add(photo.blend("multiply"));
    let text = page.svg().unwrap();
    let images: Vec<&str> = text.lines().filter(|line| line.starts_with("<image")).collect();
    assert_eq!(images.iter().map(|line| line.matches("style=").count()).collect::<Vec<_>>(), [1, 1]);
    assert!(
        images[1].contains("style=\"mix-blend-mode:multiply;image-rendering:pixelated\""),
        "{}",
        images[1]
    );
}
