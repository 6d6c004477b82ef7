//! Clips: what is written is read again, frame by frame.

use chordane::prelude::*;
use chordane::write::{Clip, ClipOptions, Format, WholeFile};

const COUNT: usize = 12;

/// A bead that goes round, with a ring that grows; on a ground or on none.
fn frame(number: usize, ground: bool) -> Pixels {
    let phase = number as f64 / COUNT as f64;
    let page = sheet(60.0, 40.0).centred();
    let page = if ground { page.ground("#f4efe6") } else { page };
    let bead = circle((0.0, 0.0), 4.0).fill("#c8553d").riding(&ellipse((0.0, 0.0), 22.0, 12.0), phase);
    page.add(bead).add(circle((0.0, 0.0), swing(phase, 3.0, 9.0)).stroke("#20303c80", 2.0)).pixels().unwrap()
}

fn written(format: Format, options: ClipOptions, ground: bool) -> Vec<u8> {
    let mut bytes = Vec::new();
    let mut clip = Clip::begin(&mut bytes, format, (60, 40), options).unwrap();
    for number in 0..COUNT {
        clip.push(&frame(number, ground)).unwrap();
    }
    clip.end().unwrap();
    bytes
}

/// Puts a frame's pixels into a picture: in place of what is there, or over it.
fn put(canvas: &mut [[u8; 4]], [left, top, width, height]: [usize; 4], pixels: &[[u8; 4]], over: bool) {
    for y in 0..height {
        for x in 0..width {
            let new = pixels[y * width + x];
            assert!(!over || new[3] == 0 || new[3] == 255, "what is put over is there or not");
            if !over || new[3] == 255 {
                canvas[(top + y) * 60 + left + x] = new;
            }
        }
    }
}

#[test]
fn animated_png_files_hold_every_pixel_of_every_frame() {
    for ground in [true, false] {
        let bytes = written(Format::Apng, ClipOptions::new(COUNT, 1.0), ground);
        let mut reader = png::Decoder::new(std::io::Cursor::new(&bytes)).read_info().unwrap();
        let control = *reader.info().animation_control().unwrap();
        assert_eq!((control.num_frames, control.num_plays), (COUNT as u32, 0));
        let (mut canvas, mut milliseconds) = (vec![[0_u8; 4]; 60 * 40], 0);
        for number in 0..COUNT {
            let mut pixels = vec![0; reader.output_buffer_size().unwrap()];
            let _ = reader.next_frame(&mut pixels).unwrap();
            let frame_control = *reader.info().frame_control().unwrap();
            let (over, area) = (
                frame_control.blend_op == png::BlendOp::Over,
                [frame_control.x_offset, frame_control.y_offset, frame_control.width, frame_control.height],
            );
            put(&mut canvas, area.map(|side| side as usize), pixels.as_chunks().0, over);
            milliseconds += u32::from(frame_control.delay_num) * 1000 / u32::from(frame_control.delay_den);
            assert_eq!(canvas, frame(number, ground).as_slice(), "frame {number}");
        }
        assert_eq!(milliseconds, 1000);
        // Only what changes is in it.
        let pictures: usize = (0..COUNT).map(|number| frame(number, ground).png().unwrap().len()).sum();
        assert!(bytes.len() < pictures, "{} {pictures}", bytes.len());
    }
}
#[test]
fn gif_files_show_the_frames_in_few_colours() {
    use chordane::write::{Dither, Palette};
    for (shared, dither, ground) in [
        (true, Dither::None, true),
        (true, Dither::Ordered, true),
        (false, Dither::Ordered, true),
        (false, Dither::Error, false),
        (true, Dither::None, false),
    ] {
        let frames: Vec<Pixels> = (0..COUNT).map(|number| frame(number, ground)).collect();
        let palette = shared.then(|| Palette::of(&frames));
        let options = ClipOptions { dither, palette, ..ClipOptions::new(COUNT, 1.0) };
        let bytes = written(Format::Gif, options, ground);
        let mut reader = gif::DecodeOptions::new();
        reader.set_color_output(gif::ColorOutput::RGBA);
        let mut reader = reader.read_info(bytes.as_slice()).unwrap();
        let (mut canvas, mut hundredths, mut count) = (vec![[0_u8; 4]; 60 * 40], 0, 0);
        while let Some(read) = reader.read_next_frame().unwrap() {
            let area = [read.left, read.top, read.width, read.height].map(usize::from);
            put(&mut canvas, area, read.buffer.as_chunks().0, true);
            hundredths += u32::from(read.delay);
            let told = frame(count, ground);
            for (ours, theirs) in told.as_slice().iter().zip(&canvas) {
                let shown = if ours[3] < 128 { 0 } else { 255 };
                assert_eq!(theirs[3], shown, "frame {count}");
                let off = (0..3).map(|i| ours[i].abs_diff(theirs[i])).max().unwrap();
                let most = if dither == Dither::None { 6 } else { 40 };
                assert!(shown == 0 || off <= most, "frame {count}, {dither:?}: {ours:?} {theirs:?}");
            }
            if read.dispose == gif::DisposalMethod::Background {
                put(&mut canvas, area, &vec![[0; 4]; area[2] * area[3]], false);
            }
            count += 1;
        }
        assert_eq!((count, hundredths), (COUNT, 100));
    }
}
#[test]
fn palettes_keep_few_colours_and_stand_for_many() {
    use chordane::write::Palette;
    let cloth = linear_gradient((0.0, 0.0), (300.0, 200.0)).colours(["gold", "teal", "navy"]);
    let many = sheet(300.0, 200.0).ground(cloth).pixels().unwrap();
    let palette = Palette::of([&many]);
    assert!((200..=255).contains(&palette.colours().len()), "{}", palette.colours().len());
    let nearest = |pixel: &[u8; 4]| {
        let off =
            |colour: &[u8; 3]| (0..3).map(|i| i32::from(colour[i].abs_diff(pixel[i])).pow(2)).sum::<i32>();
        palette.colours().iter().map(off).min().unwrap()
    };
    let worst = many.as_slice().iter().map(nearest).max().unwrap();
    assert!(worst <= 3 * 4 * 4, "{worst}");
    assert!(Palette::of([&sheet(9.0, 9.0).pixels().unwrap()]).colours().is_empty());
}

#[test]
fn plain_video_holds_the_frames_as_luminance_and_colour() {
    let bytes = written(Format::Y4m, ClipOptions::new(COUNT, 0.4), true);
    let mut reader = y4m::decode(bytes.as_slice()).unwrap();
    assert_eq!((reader.get_width(), reader.get_height()), (60, 40));
    assert_eq!((reader.get_framerate().num, reader.get_framerate().den), (30, 1));
    assert!(matches!(reader.get_colorspace(), y4m::Colorspace::C444));
    for number in 0..COUNT {
        let read = reader.read_frame().unwrap();
        let planes = [read.get_y_plane(), read.get_u_plane(), read.get_v_plane()];
        for (i, pixel) in frame(number, true).as_slice().iter().enumerate() {
            let [y, u, v] = planes.map(|plane| f64::from(plane[i]));
            let (y, u, v) = ((y - 16.0) / 219.0, (u - 128.0) / 224.0, (v - 128.0) / 224.0);
            let (red, blue) = (y + 1.402 * v, y + 1.772 * u);
            let green = (y - 0.299 * red - 0.114 * blue) / 0.587;
            for (ours, theirs) in pixel.iter().zip([red, green, blue]) {
                assert!((f64::from(*ours) - theirs * 255.0).abs() < 3.0, "frame {number}, pixel {i}");
            }
        }
    }
    assert!(reader.read_frame().is_err());
}

#[test]
fn clips_of_wrong_sizes_and_counts_are_refused() {
    let begin = |options: ClipOptions| {
        Clip::begin(Vec::new(), Format::Y4m, (60, 40), options).map(|_| ()).unwrap_err().to_string()
    };
    assert_eq!(begin(ClipOptions::new(0, 1.0)), "a clip has 1 to 4294967295 frames, not 0");
    assert_eq!(begin(ClipOptions::new(3, 0.0)), "a clip takes more than 0 seconds, not 0");
    assert_eq!(begin(ClipOptions::new(3, f64::NAN)), "a clip takes more than 0 seconds, not NaN");
    for format in Format::clips() {
        let mut clip = Clip::begin(Vec::new(), format, (60, 40), ClipOptions::new(2, 1.0)).unwrap();
        let wrong = sheet(61.0, 40.0).pixels().unwrap();
        assert_eq!(clip.push(&wrong).unwrap_err().to_string(), "a frame is not of the size of its clip");
        clip.push(&frame(0, true)).unwrap();
        assert_eq!(clip.end().unwrap_err().to_string(), "1 frames of the clip are missing");
        let mut clip = Clip::begin(Vec::new(), format, (60, 40), ClipOptions::new(1, 1.0)).unwrap();
        clip.push(&frame(0, true)).unwrap();
        assert_eq!(
            clip.push(&frame(0, true)).unwrap_err().to_string(),
            "the clip has all its frames already"
        );
        clip.end().unwrap();
    }
}

#[test]
fn a_file_that_is_not_finished_leaves_nothing() {
    use std::io::Write;
    let folder = tempfile::tempdir().unwrap();
    let file = folder.path().join("clip.y4m");
    std::fs::write(&file, "old").unwrap();
    let mut out = WholeFile::create(&file).unwrap();
    out.write_all(b"half").unwrap();
    assert_eq!(std::fs::read_dir(&folder).unwrap().count(), 2);
    drop(out);
    assert_eq!(std::fs::read(&file).unwrap(), b"old");
    assert_eq!(std::fs::read_dir(&folder).unwrap().count(), 1);
}

#[test]
fn things_ride_at_a_constant_speed_and_come_round() {
    let rail = start((0.0, 0.0))
        .cubic((90.0, 0.0), (90.0, 60.0), (10.0, 60.0))
        .quad((-30.0, 30.0), (0.0, 0.0))
        .close();
    let kite = start((0.0, 0.0)).line((3.0, 0.0)).open();
    let place = |share: f64| {
        let data = kite.riding(&rail, share);
        let ends: Vec<Point> = data.contours()[0].vertices().collect();
        (ends[0], ends[1] - ends[0])
    };
    let length = rail.length().unwrap();
    let steps = 400;
    for i in 0..steps {
        let (a, b) = (f64::from(i) / f64::from(steps), f64::from(i + 1) / f64::from(steps));
        let (from, to) = (place(a), place(b));
        let moved = (to.0 - from.0).length();
        assert!((moved - length / f64::from(steps)).abs() < 0.03, "{i}: {moved}");
        // It looks where it goes, but for the corner.
        if from.1.angle_to(to.1).abs() < 0.2 {
            assert!((to.0 - from.0).angle_to(from.1 + to.1).abs() < 0.05, "{i}");
        }
    }
    assert_eq!((place(0.0), place(1.0).0), (place(2.0), place(0.0).0));
    let upright = kite.riding_upright(&rail, 0.3).contours()[0].vertices().collect::<Vec<_>>();
    assert_eq!(upright[1] - upright[0], pt(3.0, 0.0));
    // Open paths end; empty ones hold nothing, faults are carried.
    let line = start((0.0, 0.0)).line((10.0, 0.0)).open();
    assert_eq!(kite.riding(&line, 7.0).data(), "M10 0H13");
    assert_eq!(kite.riding(&Path::empty(), 0.5), kite);
    assert_eq!(
        kite.riding(&line, f64::NAN).sound().unwrap_err().to_string(),
        "`riding`: the share NaN is not finite; give a finite number"
    );
    let item = kite.fill("teal").riding(&line, f64::INFINITY);
    assert!(item.sound().is_err());
}
