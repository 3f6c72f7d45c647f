#pragma once

#include <filesystem>
#include <optional>
#include <string>
#include <vector>

#include "core/drawing/drawing.h"
#include "core/job/file_wish.h"

namespace rim::io::svg {

/// How outlines look in an SVG.
struct SvgLook {
  std::optional<bool> filled;   ///< closed outlines: filled, or as hairlines; none: filled where all of a layer are
  bool strokesAsDrawn = false;  ///< lines of a pen: as wide as they were drawn, with round tips; else as hairlines
  job::SvgElement element =
      job::SvgElement::Layer;  ///< in the order of areasOf() (drawing/nested.h) when each part has its own
};

/// What an SVG says about itself (UTF-8); what is empty is not written.
struct SvgAbout {
  std::string title;              ///< the document's <title>
  std::string note;               ///< its <desc>
  std::vector<std::string> tags;  ///< subjects of the Dublin Core (elements 1.1) in its <metadata>, as RDF/XML
};

/// Writes the drawing as SVG 1.1: width and height in the drawing's unit, a viewBox in the same, y
/// turned downwards, nothing but paths. Outlines that look alike share one path element, or those of each part, so that
/// holes stay open when it is filled (even-odd); or each has its own. Arcs are written as A (in two halves when
/// they turn by 155 degrees or more), cubics as C; coordinates to 1e-6 mm.
/// Lines of a pen are never filled.
/// A note, when there is one, becomes the document's <desc>.
/// The file is written beside and renamed (io/common/safe_file.h). Throws WriteError.
void writeSvg(const Drawing& drawing, const std::filesystem::path& file, const std::string& note = {},
              const SvgLook& look = {});

/// The same with more said about it.
void writeSvg(const Drawing& drawing, const std::filesystem::path& file, const SvgAbout& about,
              const SvgLook& look = {});

/// The same as a text. Throws WriteError when memory does not suffice.
std::string svgText(const Drawing& drawing, const std::string& note = {}, const SvgLook& look = {});

}  // namespace rim::io::svg
