//! Paths as data, faults that survive, getters that give back what was set, and numbers of any size.

use chordane::prelude::*;
use chordane::raster::DrawError;
use chordane::reshape::{StampOrientation, StampSpacing};
use chordane::sheet::{Effect, Node};
use proptest::prelude::*;

use crate::support::any_path;

proptest! {
    #![proptest_config(crate::support::cases(100))]

    #[test]
    fn paths_come_apart_and_together(path in any_path(60.0)) {
        let again: Path = path.contours().iter().cloned().collect();
        prop_assert_eq!(again.contours(), path.contours());
        let one_by_one: Vec<Contour> = path
            .contours()
            .iter()
            .filter_map(|contour| Contour::from_segments(contour.drawn_segments(), contour.is_closed()))
            .collect();
        prop_assert_eq!(&one_by_one, path.contours());
        for contour in &path {
            let all: Vec<Segment> = contour.drawn_segments().chain(contour.closing_side()).collect();
            prop_assert_eq!(all, contour.into_iter().collect::<Vec<_>>());
        }
        let mut grown = Path::empty();
        grown.extend(path.clone());
        prop_assert_eq!(grown.contours(), path.contours());
        let text = path.to_string();
        prop_assert!(text.parse::<Path>().unwrap().contours() == path.contours());
        prop_assert!(Path::try_from(text.as_str()).unwrap().contours() == path.contours());
        // What comes home is closed when only its segments are known; all else is the same line.
        let joined = Path::from_segments(path.segments());
        prop_assert!((joined.length().unwrap() - path.length().unwrap()).abs() < 1e-9);
    }
}

/// A reshape that forgets about faults does not lose them, and one of a program's own can raise one.
#[test]
fn faults_survive_what_a_reshape_does() {
    struct Forgetful;
    impl Reshape for Forgetful {
        fn reshape(&self, path: &Path) -> Path {
            Path::from_contours(path.contours().to_vec())
        }
    }
    let faulty = circle((0.0, 0.0), -1.0);
    let told = "`circle`: the radius -1 is negative; give 0 or more";
    let ways = [
        faulty.then(Forgetful),
        faulty.then(&Forgetful),
        faulty.then(Box::new(Forgetful)),
        faulty.then(std::sync::Arc::new(Forgetful)),
        faulty.then(Forgetful.then(Round::new(2.0))),
        faulty.then(ReshapeFn(|_: &Path| Path::empty())),
        faulty.then(Box::new(Forgetful) as Box<dyn Reshape>),
    ];
    for path in ways {
        assert_eq!(path.sound().unwrap_err().to_string(), told);
    }
    // The first fault is the one that is told.
    let own = |path: &Path| path.clone().with_fault(Fault::new("hemmed", "no"));
    assert_eq!(faulty.then(ReshapeFn(own)).fault().unwrap().call(), "circle");
    assert_eq!(
        circle((0.0, 0.0), 1.0).then(ReshapeFn(own)).then(Round::new(-1.0)).fault().unwrap().call(),
        "hemmed"
    );
    // Of what is left of it, it goes on answering; what leaves the library gives the fault back.
    assert_eq!((faulty.data().as_str(), faulty.bounds(), faulty.inside((0.0, 0.0))), ("", None, false));
    assert_eq!((faulty.signed_area(), faulty.segments().count()), (0.0, 0));
    assert!(faulty.length().is_err() && faulty.area().is_err() && faulty.survey().is_err());
}

#[test]
fn what_is_set_can_be_read() {
    let hem = style()
        .stroke("teal", 3.0)
        .cap("round")
        .join("bevel")
        .mitre_limit(7.0)
        .dash([4.0, 2.0])
        .dash_offset(1.5);
    let line = &hem.line;
    assert_eq!((line.width, line.cap, line.join), (3.0, Cap::Round, Join::Bevel));
    assert_eq!((line.mitre_limit, line.dash.as_slice(), line.dash_offset), (7.0, &[4.0, 2.0][..], 1.5));
    assert_eq!((&hem.fill, hem.clone().opacity(0.5).opacity), (&None, 0.5));
    let both = group().opacity(0.25).named("kite").clipped(circle((0.0, 0.0), 1.0));
    assert_eq!((both.opacity, both.name(), both.compositing().clip.is_some()), (0.25, Some("kite"), true));
    let page = sheet(9.0, 8.0).unit("mm").centred().y_up().ground("gold").metadata("made so");
    assert_eq!((page.unit, page.centred, page.y_up), (Unit::Mm, true, true));
    assert_eq!(page.ground.as_ref().and_then(Paint::colour), Some(Colour::parse("gold").unwrap()));
    assert_eq!(page.metadata.as_deref(), Some("made so"));
    let stamp = Stamp::new(circle((0.0, 0.0), 1.0)).every(5.0).lead_in(2.0).drift(1.0).upright();
    assert_eq!((&stamp.spacing, stamp.lead_in, stamp.drift), (&StampSpacing::Every(5.0), 2.0, 1.0));
    assert_eq!(stamp.orientation, StampOrientation::Upright);
}

/// Fields that no word checked are checked when the sheet is used.
#[test]
fn fields_are_checked_when_they_are_used() {
    let spar = || Path::open([(0.0, 0.0), (9.0, 0.0)]).stroke("teal", 1.0);
    let call = |page: Sheet| page.sound().unwrap_err().call().to_owned();
    let styled = |change: &dyn Fn(&mut Style)| {
        let mut item = spar();
        change(item.style_mut());
        call(sheet(9.0, 9.0).add(item))
    };
    assert_eq!(styled(&|style| style.opacity = 2.0), "opacity");
    assert_eq!(styled(&|style| style.line.width = -1.0), "stroke");
    assert_eq!(styled(&|style| style.line.mitre_limit = 0.5), "mitre_limit");
    assert_eq!(styled(&|style| style.line.dash = vec![2.0, -1.0]), "dash");
    assert_eq!(styled(&|style| style.line.dash_offset = f64::NAN), "dash_offset");
    assert_eq!(styled(&|style| style.fill = Some(linear_gradient((0.0, 0.0), (9.0, 0.0)).into())), "fill");
    let placed = |change: &dyn Fn(&mut Node)| {
        let both = [Node::from(spar()), group().add(spar()).into()];
        let [item, group] = both.map(|mut node| {
            change(&mut node);
            call(sheet(9.0, 9.0).add(node))
        });
        assert_eq!(item, group);
        item
    };
    assert_eq!(placed(&|node| node.compositing_mut().order = f64::NAN), "order");
    assert_eq!(placed(&|node| node.compositing_mut().effects.push(Effect::Blur { radius: -1.0 })), "blurred");
    assert_eq!(placed(&|node| node.placement_mut().transform.translation.x = f64::NAN), "transformed");
    let mut page = sheet(9.0, 9.0);
    page.size.x = 0.0;
    assert_eq!(call(page), "sheet");
    let mut page = sheet(9.0, 9.0);
    page.ground = Some(linear_gradient((0.0, 0.0), (9.0, 0.0)).into());
    assert_eq!(call(page), "ground");
}

/// Counts beyond all measure answer at once: with nothing, or with a fault that says what is allowed.
#[test]
fn counts_beyond_all_measure_answer_at_once() {
    let most = usize::MAX;
    let begin = std::time::Instant::now();
    let faulty = [
        polygon((0.0, 0.0), most, 5.0),
        star((0.0, 0.0), most, 5.0, 3.0),
        gear((0.0, 0.0), most, 5.0, 4.0),
        trail(most, |share| pt(share, 0.0)),
        rectangle((0.0, 0.0), 5.0, 4.0).subdivided(most),
        rectangle((0.0, 0.0), 5.0, 4.0).spun(most, (0.0, 0.0)),
        rectangle((0.0, 0.0), 5.0, 4.0).then(Stamp::new(circle((0.0, 0.0), 1.0)).count(most)),
    ];
    for path in faulty {
        let told = path.sound().unwrap_err().to_string();
        assert!(told.contains("too many") || told.contains("out of range"), "{told}");
    }
    assert!(ring_of(circle((0.0, 0.0), 1.0), most, 5.0).own_fault().is_some());
    assert_eq!(around(most).len(), most);
    assert_eq!(golden_places(most, 1.0).len(), most);
    assert!(cell((0.0, 0.0), 9.0, 9.0).grid(most, most).next().is_some());
    assert!(wheel(5.0, 1.0, deg(0.0)).points(most).is_empty());
    assert!(matches!(Pixels::new(u32::MAX, u32::MAX), Err(DrawError::TooLarge { .. })));
    let huge = WriteOptions { max_side: u32::MAX, ..WriteOptions::sized(u32::MAX, 2) };
    assert!(matches!(sheet(9.0, 9.0).pixels_with(&huge), Err(DrawError::TooLarge { .. })));
    assert!(begin.elapsed().as_secs() < 20);
}

#[test]
fn tolerances_that_cannot_be_are_faults() {
    let sail = circle((0.0, 0.0), 9.0);
    for bad in [f64::NAN, -1.0] {
        let ways = [
            sail.flattened(bad),
            sail.thinned(bad),
            sail.curve_fitted(bad),
            sail.warped(bad, |p| p),
            sail.nibbed(&Nib::new(3.0, 1.0), bad),
            sail.then(Offset { tolerance: bad, ..Offset::new(2.0) }),
            sail.then(Bend { tolerance: bad, ..Bend::along(&sail) }),
            sail.then(Taper { tolerance: bad, ..LineStyle::new(2.0).tapered(|_| 1.0) }),
            plot(0.0, 1.0, bad, |x| x),
            traced_trail(bad, |share| pt(share, share)),
        ];
        for path in ways {
            let told = path.sound().unwrap_err().to_string();
            assert!(told.contains("the tolerance "), "{told}");
        }
        let options = WriteOptions { tolerance: bad, ..WriteOptions::default() };
        let told =
            sheet(9.0, 9.0).add(sail.clone().fill("red")).pixels_with(&options).unwrap_err().to_string();
        assert!(told.contains("`pixels`: the tolerance "), "{told}");
    }
}

#[test]
fn values_have_a_json_form() {
    let hoop = ring((1.0, 2.0), 0.1 + 0.2, 0.1).with_fill_rule(FillRule::EvenOdd);
    let text = serde_json::to_string(&hoop).unwrap();
    assert!(text.starts_with("{\"data\":\"M") && text.ends_with("\",\"fill_rule\":\"evenodd\"}"), "{text}");
    assert_eq!(serde_json::from_str::<Path>(&text).unwrap(), hoop);
    assert_eq!(serde_json::from_str::<Path>("{\"data\":\"M0 0H5\"}").unwrap().fill_rule(), FillRule::Nonzero);
    assert!(
        serde_json::from_str::<Path>("{\"data\":\"M0\"}")
            .unwrap_err()
            .to_string()
            .contains("a number is missing")
    );
    assert!(serde_json::to_string(&circle((0.0, 0.0), -1.0)).unwrap_err().to_string().contains("negative"));
    assert_eq!(serde_json::to_string(&(pt(1.0, 2.5), deg(30.0))).unwrap(), "[[1.0,2.5],30.0]");
    let cell_text = serde_json::to_string(&cell((1.0, 2.0), 3.0, 4.0)).unwrap();
    assert_eq!(cell_text, "{\"min\":[1.0,2.0],\"max\":[4.0,6.0]}");
    let colour = Colour::parse("teal").unwrap();
    assert_eq!(serde_json::from_str::<Colour>(&serde_json::to_string(&colour).unwrap()).unwrap(), colour);
}

#[test]
fn points_go_to_mint_and_back() {
    let theirs: mint::Point2<f64> = pt(3.0, -4.0).into();
    assert_eq!((theirs.x, theirs.y), (3.0, -4.0));
    assert_eq!((Point::from(theirs), circle(theirs, 2.0)), (pt(3.0, -4.0), circle((3, -4), 2.0)));
}

/// A sheet with every kind of content survives JSON.
#[test]
fn sheets_are_values_of_serde() {
    let sail = star((0, 0), 5, 40.0, 17.0).with_fill_rule(FillRule::EvenOdd);
    let weave = Picture::from_rgba(2, 1, &[200, 85, 61, 255, 47, 111, 115, 128]).unwrap().sampled("nearest");
    let stripes =
        pattern(cell((0, 0), 9.0, 9.0), rectangle((0, 0), 9.0, 4.0).fill("#c8553d")).rotated(deg(20.0));
    let dusk =
        radial_gradient((0, 0), 30.0).focus_circle((4, 0), 3.0).colours(["gold", "navy"]).mixed("oklab");
    let page = sheet(120.0, 90.0)
        .unit("mm")
        .centred()
        .ground(dusk.clone())
        .title("Sails")
        .add(
            sail.clone()
                .fill(weave)
                .stroke(stripes, 3.0)
                .dash([4.0, 2.0])
                .join("round")
                .named("sail")
                .at_line(7),
        )
        .add(sail.clone().fill(by_vertex(["red", "gold"])).stroke(along(dusk), 2.0).opacity(0.5))
        .add(
            group()
                .add(sail.clone().fill("teal").blurred(2.0).shadow((3, 4), 1.0, "#00000080"))
                .clipped(circle((0, 0), 20.0))
                .masked_by(group().add(circle((0, 0), 30.0).fill("white")), "alpha")
                .blend("multiply")
                .rotated(deg(9.0)),
        );
    let text = serde_json::to_string_pretty(&page).unwrap();
    assert_eq!(serde_json::from_str::<Sheet>(&text).unwrap(), page);
    for part in [
        "\"blend\": \"multiply\"",
        "\"fill_rule\": \"evenodd\"",
        "\"join\": \"round\"",
        "\"unit\": \"mm\"",
        "\"solid\": \"#008080\"",
    ] {
        assert!(text.contains(part), "{part} in {text}");
    }
    // What is brief is filled up, and what cannot be is refused.
    let brief: Item =
        serde_json::from_str(r##"{"path": {"data": "M0 0H9V9Z"}, "style": {"fill": {"solid": "teal"}}}"##)
            .unwrap();
    assert_eq!(brief, Path::from_data("M0 0H9V9Z").unwrap().fill("teal"));
    let style =
        |text: &str| serde_json::from_str::<Style>(text).map(|_| ()).map_err(|error| error.to_string());
    assert!(style(r#"{"line": {"cap": "pointed"}}"#).unwrap_err().contains("\"pointed\" is not a cap"));
    assert!(style(r#"{"fill": {"solid": "tael"}}"#).unwrap_err().contains("did you mean \"teal\""));
    let faulty = serde_json::to_string(&sail.fill("tael")).unwrap_err();
    assert!(faulty.to_string().contains("did you mean \"teal\""), "{faulty}");
    // Colours between those of eight bits keep what can be seen of them.
    let between = oklch(0.7, 0.1, deg(40.0)).faded(0.3);
    let again: Colour = serde_json::from_str(&serde_json::to_string(&between).unwrap()).unwrap();
    let off = [between.red - again.red, between.green - again.green, between.blue - again.blue];
    assert!(off.iter().all(|off| off.abs() < 1e-6) && again.alpha == between.alpha, "{between:?} {again:?}");
    let dash = Dash { fit: DashFit::Whole, ..Dash::new([4.0, 2.0]) };
    assert_eq!(serde_json::from_str::<Dash>(&serde_json::to_string(&dash).unwrap()).unwrap(), dash);
    let settings =
        chordane_score::Settings::new().seed(7).set("sag", 0.2).give("sail", circle((0, 0), 9.0)).frame(2, 8);
    let text = serde_json::to_string(&settings).unwrap();
    assert_eq!(serde_json::from_str::<chordane_score::Settings>(&text).unwrap(), settings);
}
