//! Documents as other programs write them, for comparison with a browser.

/// A document of 160 by 120: its name and its text.
pub(crate) const DOCUMENTS: &[(&str, &str)] = &[(
    "document-shapes",
    r##"<svg xmlns="http://www.w3.org/2000/svg" width="160" height="120" viewBox="0 0 160 120"><rect width="160" height="120" fill="#f4efe6"/>
<g fill="teal" stroke="navy" stroke-width="3"><rect x="10" y="10" width="60" height="40" rx="12"/><ellipse cx="110" cy="40" rx="36" ry="22"/>
<polygon points="20,110 50,60 80,110"/><path d="M90 110Q120 60 150 110" fill="none" stroke-linecap="round"/></g></svg>"##,
)];
