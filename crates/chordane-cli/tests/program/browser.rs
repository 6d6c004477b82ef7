//! The SVG files and the demo's page in a real browser. Run with `--include-ignored` where Chromium is installed.

use std::path::Path;
use std::process::Command as Process;

use super::support::{chordane, demo, demo_scores};

/// The pixels of a page or picture as Chromium shows it, with so many of them to one of the page's.
fn shown(file: &Path, width: u32, height: u32, scale: f64) -> Vec<u8> {
    let folder = tempfile::tempdir().unwrap();
    let shot = folder.path().join("shot.png");
    let done = Process::new("chromium")
        .args(["--headless", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run"])
        .args(["--disable-background-networking", "--disable-component-update", "--disable-sync"])
        .args(["--hide-scrollbars", "--force-color-profile=srgb", "--default-background-color=ffffffff"])
        .arg(format!("--user-data-dir={}", folder.path().join("profile").display()))
        .arg(format!("--window-size={width},{height}"))
        .arg(format!("--force-device-scale-factor={scale}"))
        .arg(format!("--screenshot={}", shot.display()))
        .arg(format!("file://{}", file.display()))
        .output()
        .expect("Chromium runs");
    assert!(shot.exists(), "{}", String::from_utf8_lossy(&done.stderr));
    pixels(&shot)
}

/// The pixels of SVG files, each in an element of a name and of a size in pixels, one below the other on one page: starting the browser takes longer
/// than to show a file.
pub(crate) fn shown_together(
    folder: &Path,
    names: &[String],
    element: &str,
    [wide, high]: [u32; 2],
) -> Vec<Vec<u8>> {
    let mut page = String::from("<!DOCTYPE html><body style=\"margin:0;background:white\">");
    for (i, name) in names.iter().enumerate() {
        page.push_str(&format!(
            "<{element} src=\"{name}.svg\" style=\"position:absolute;border:0;left:0;top:{}px;width:{wide}px;height:{high}px\"></{element}>",
            i as u32 * high
        ));
    }
    let file = folder.join("page.html");
    std::fs::write(&file, page).unwrap();
    let all = shown(&file, wide, high * names.len() as u32, 1.0);
    all.chunks_exact((wide * high * 3) as usize).map(<[u8]>::to_vec).collect()
}

/// Red, green and blue of each pixel of a PNG file, on white.
pub(crate) fn pixels(file: &Path) -> Vec<u8> {
    let file = std::io::BufReader::new(std::fs::File::open(file).unwrap());
    let mut reader = png::Decoder::new(file).read_info().unwrap();
    let mut bytes = vec![0; reader.output_buffer_size().unwrap()];
    let info = reader.next_frame(&mut bytes).unwrap();
    let channels = info.color_type.samples();
    bytes.truncate(info.buffer_size());
    if channels == 3 {
        return bytes;
    }
    let mut opaque = Vec::with_capacity(bytes.len());
    for pixel in bytes.chunks_exact(channels) {
        match *pixel {
            [red, green, blue, 255] => opaque.extend_from_slice(&[red, green, blue]),
            [.., alpha] => {
                let white = f64::from(255 - alpha);
                opaque.extend(
                    pixel[..3]
                        .iter()
                        .map(|level| (f64::from(*level) * f64::from(alpha) / 255.0 + white).round() as u8),
                );
            }
            [] => {}
        }
    }
    opaque
}

#[test]
#[ignore = "needs Chromium"]
fn the_browser_shows_the_svg_as_we_draw_the_png() {
    let folder = tempfile::tempdir().unwrap();
    let at = |name: &str, ending: &str| folder.path().join(format!("{name}.{ending}"));
    let (scores, mut names) = (demo_scores(), Vec::new());
    for score in &scores {
        let name = score.file_stem().unwrap().to_string_lossy().into_owned();
        let mut call = chordane();
        call.arg("draw").arg(score).args(["--size", "1280x960", "-o"]).arg(at(&name, "svg"));
        call.arg("-o").arg(at(&name, "png")).assert().success();
        names.push(name);
    }
    let seen = names.chunks(6).flat_map(|some| shown_together(folder.path(), some, "img", [1280, 960]));
    for ((score, name), theirs) in scores.iter().zip(&names).zip(seen) {
        let ours = pixels(&at(name, "png"));
        assert_eq!(theirs.len(), ours.len());
        // The browser rounds each translucent layer's opacity to eight bits, a level or so a layer and up to seven
        // layers here; it measures curves for dashes more coarsely, so that the last dashes of a long tail shift by
        // half a pixel; and its antialiasing differs a little. Anything misplaced or of another colour differs a
        // lot, and over many pixels.
        let (mut little, mut much) = (0, 0);
        // Rows that are equal are passed over at once.
        for (theirs, ours) in
            theirs.chunks(1024).zip(ours.chunks(1024)).filter(|(theirs, ours)| theirs != ours)
        {
            for off in theirs.iter().zip(ours).map(|(a, b)| a.abs_diff(*b)) {
                little += usize::from(off > 8);
                much += usize::from(off > 40);
            }
        }
        let (little, much) = (little as f64 / ours.len() as f64, much as f64 / ours.len() as f64);
        // Antialiasing differs at edges alone: where a picture is full of them, a quarter of those pixels may.
        let pairs = ours.windows(4).step_by(7);
        let edges =
            pairs.clone().filter(|pair| pair[0].abs_diff(pair[3]) > 8).count() as f64 / pairs.len() as f64;
        // Pictures with hard edges the browser takes pixel by pixel, without antialiasing; at eight times the size, where that does not
        // matter, the sheets hold them to the common bars.
        let squares = std::fs::read_to_string(score).unwrap().contains("sampled(\"nearest\")");
        let most = (0.25 * edges).max(if squares { 0.02 } else { 0.01 });
        assert!(little < most && much < 0.002, "{score:?}: {little} over 8, {much} over 40, {edges} edges");
    }
}

#[test]
#[ignore = "needs Chromium"]
fn the_page_shows_every_picture() {
    let seen = shown(&demo().join("index.html"), 1280, 38000, 0.5);
    // The first sail's cloth is somewhere on the page, and so is the last score's air.
    for colour in [[200, 85, 61], [223, 233, 238]] {
        let count = seen.chunks_exact(3).filter(|pixel| **pixel == colour).count();
        assert!(count > 500, "{colour:?} is on {count} pixels");
    }
}
