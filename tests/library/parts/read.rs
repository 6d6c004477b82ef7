//! Single routines of `chordane::read`.

mod metadata {
    use chordane::prelude::*;
    use chordane::read::*;

    #[test]
    fn any_text_comes_back_and_nothing_else_does() {
        for text in [
            "",
            "{\"seed\": 7}",
            "a & b < c > \"d\" 'e'",
            "Skerry — kite\nloft",
            "two\r\nlines\r",
            "&amp;amp;",
        ] {
            let sheet = sheet(3.0, 3.0).metadata(text);
            assert_eq!(read_metadata(sheet.svg().unwrap().as_bytes()).as_deref(), Some(text));
            assert_eq!(read_metadata(&sheet.pixels().unwrap().png().unwrap()).as_deref(), Some(text));
        }
        let plain = sheet(3.0, 3.0);
        assert_eq!(read_metadata(plain.svg().unwrap().as_bytes()), None);
        assert_eq!(read_metadata(&plain.pixels().unwrap().png().unwrap()), None);
        for bytes in [
            &b""[..],
            b"\x89PNG\r\n\x1a\nbroken",
            b"<svg><metadata>",
            b"\xff\xfe",
            b"<svg><metadata>&x;</metadata>",
        ] {
            assert_eq!(read_metadata(bytes), None);
        }
    }
}
