//! The grammar of path data: SVG 2 recommendation, section 9.3.

use chordane::path::DataErrorKind;
use chordane::prelude::*;
use proptest::prelude::*;

fn read(data: &str) -> String {
    Path::from_data(data).unwrap_or_else(|error| panic!("{data}: {error}")).data()
}

#[test]
fn all_twenty_commands() {
    let cases = [
        ("M1 2 3 4", "M1 2 3 4"),
        ("m1 2 3 4", "M1 2 4 6"),
        ("M1 2z m5 5 1 0", "M1 2ZM6 7H7"),
        ("M0 0L5 6", "M0 0 5 6"),
        ("M1 1l5 6", "M1 1 6 7"),
        ("M1 1H5h5", "M1 1H5 10"),
        ("M1 1V5v5", "M1 1V5 10"),
        ("M0 0C1 2 3 4 5 6", "M0 0C1 2 3 4 5 6"),
        ("M1 1c1 2 3 4 5 6", "M1 1C2 3 4 5 6 7"),
        ("M0 0C1 2 3 4 5 6S9 9 10 10", "M0 0C1 2 3 4 5 6 7 8 9 9 10 10"),
        ("M0 0c1 2 3 4 5 6s4 3 5 4", "M0 0C1 2 3 4 5 6 7 8 9 9 10 10"),
        ("M1 1S9 9 10 10", "M1 1C1 1 9 9 10 10"),
        ("M0 0Q1 2 3 4", "M0 0Q1 2 3 4"),
        ("M1 1q1 2 3 4", "M1 1Q2 3 4 5"),
        ("M0 0Q1 2 3 4T9 9", "M0 0Q1 2 3 4 5 6 9 9"),
        ("M0 0q1 2 3 4t6 5", "M0 0Q1 2 3 4 5 6 9 9"),
        ("M1 1T9 9", "M1 1Q1 1 9 9"),
        ("M0 0A5 6 30 0 1 9 9", "M0 0A5 6 30 0 1 9 9"),
        ("M1 1a5 6 30 1 0 9 9", "M1 1A5 6 30 1 0 10 10"),
        ("M0 0H5V5Z", "M0 0H5V5Z"),
        ("M0 0h5v5z", "M0 0H5V5Z"),
    ];
    for (data, want) in cases {
        assert_eq!(read(data), want, "{data}");
    }
}

#[test]
fn compact_forms() {
    let cases = [
        ("M.5.5-1-2", "M.5.5-1-2"),
        ("M1,2,3,4", "M1 2 3 4"),
        ("\t M 1 , 2 \r\n L 3\x0c4 ", "M1 2 3 4"),
        ("M0 0a5 5 0 0110 10", "M0 0A5 5 0 0 1 10 10"),
        ("M0 0a5 5 0 01.5.5", "M0 0A5 5 0 0 1 .5.5"),
        ("M0 0a5 5 0 1110-10a5,5,0,0,0,1,1", "M0 0A5 5 0 1 1 10-10 5 5 0 0 0 11-9"),
        ("M+1+2", "M1 2"),
        ("M1e2-1E-2", "M100-.01"),
        ("M0 0 1 1zl5 5", "M0 0 1 1ZM0 0 5 5"),
        ("M1 1zz", "M1 1Z"),
        ("", ""),
        ("  ", ""),
        ("M1 1M2 2", "M1 1M2 2"),
        ("M-0-0", "M-0-0"),
    ];
    for (data, want) in cases {
        assert_eq!(read(data), want, "{data}");
    }
}

#[test]
fn errors_have_their_place_and_keep_what_came_before() {
    let cases = [
        ("L1 1", 0, DataErrorKind::NoMoveFirst, ""),
        ("M", 1, DataErrorKind::NumberMissing, ""),
        ("M1", 2, DataErrorKind::NumberMissing, ""),
        ("M1 1 2", 6, DataErrorKind::NumberMissing, "M1 1"),
        ("M1 1L2 2,", 9, DataErrorKind::NumberMissing, "M1 1 2 2"),
        ("M1 1L2 2,,3 3", 9, DataErrorKind::NumberMissing, "M1 1 2 2"),
        ("M1 1L,2 2", 5, DataErrorKind::NumberMissing, "M1 1"),
        ("M1 1X", 4, DataErrorKind::UnknownCommand('X'), "M1 1"),
        ("M1 1é", 4, DataErrorKind::UnknownCommand('é'), "M1 1"),
        ("M1. 2", 2, DataErrorKind::NumberMissing, ""),
        ("M0 0A5 5 0 2 1 3 3", 11, DataErrorKind::FlagMissing, "M0 0"),
        ("M0 0L1e999 0", 5, DataErrorKind::TooLarge, "M0 0"),
        ("M1e308 0l1e308 0", 9, DataErrorKind::TooLarge, "M1e308 0"),
        ("M0 0 5 5z 3", 10, DataErrorKind::UnknownCommand('3'), "M0 0 5 5Z"),
    ];
    for (data, at, kind, before) in cases {
        let error = Path::from_data(data).unwrap_err();
        assert_eq!((error.position(), error.kind()), (at, kind), "{data}");
        assert_eq!(error.so_far().data(), before, "{data}");
    }
    assert_eq!(
        Path::from_data("M1 1X").unwrap_err().to_string(),
        "path data, byte 4: 'X' is not a command; use one of M L H V C S Q T A Z, large or small"
    );
}

/// Long data is read in pieces on several threads; that must not show.
#[test]
fn long_data_reads_as_short_data_does() {
    let mut data = String::new();
    for i in 0..60_000 {
        data += &format!("M{i} 1l2 3{}", if i % 3 == 0 { "z" } else { "m1 1 2 2" });
    }
    let whole = Path::from_data(&data).unwrap();
    assert_eq!(whole.contours().len(), 100_000);
    assert_eq!(whole.contours()[99_999].start(), pt(60_002.0, 5.0));
    let place = data.len();
    data += "M1 1L2";
    let error = Path::from_data(&data).unwrap_err();
    assert_eq!(error.position(), place + 6);
    assert_eq!(error.so_far().contours().len(), 100_001);
}

#[test]
fn ten_megabytes_of_data_and_of_rubbish_are_read_or_refused() {
    let long = format!("M0 0{}", "l1 1".repeat(2_500_000));
    assert_eq!(Path::from_data(&long).unwrap().contours()[0].vertex_count(), 2_500_001);
    assert!(Path::from_data(&"9".repeat(10_000_000)).is_err());
    let digits = format!("M0 {}", "9".repeat(10_000_000));
    assert_eq!(Path::from_data(&digits).unwrap_err().kind(), DataErrorKind::TooLarge);
}

proptest! {
    /// Whatever is thrown at the reader, it answers, and what it kept reads back.
    #[test]
    fn any_text_is_read_or_refused(text in "[MmLlHhVvCcSsQqTtAaZz0-9.,eE+\\- \n]{0,60}|\\PC{0,40}") {
        let kept = Path::from_data(&text).unwrap_or_else(|error| error.so_far().clone());
        prop_assert_eq!(Path::from_data(&kept.data()).unwrap(), kept);
    }
}
