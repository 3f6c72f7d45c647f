#pragma once

#include <optional>
#include <string>

#include "core/geometry/curve_form.h"
#include "core/geometry/units.h"

namespace rim::job {

enum class DxfVersion {
  R12,      ///< AC1009: POLYLINE with vertices, for old controllers
  Dxf2000,  ///< AC1015: LWPOLYLINE, and SPLINE for curves
};

/// Where a drawing's coordinates begin in a file: they stay, or at a corner or in the middle of the box round all
/// outlines, or of the stock.
enum class OriginAt { Drawing, LowerLeft, Centre, LowerRight, UpperLeft, UpperRight };

/// Which outlines share a path element of an SVG: all of a layer, a border with its holes, or none.
enum class SvgElement { Layer, Part, Outline };

/// What a file is made of, and how its outlines lie in it.
struct ExportSettings {
  std::optional<CurveForm> curves;  ///< none: Beziers in SVG, arcs in DXF (lines and arcs in R12)
  double toleranceMm = 0;           ///< how far curves may move when they become arcs or lines; 0: the job says it
  DxfVersion dxf = DxfVersion::Dxf2000;
  bool withOrigin = false;  ///< the job's note of origin goes into the file
  Unit unit = Unit::Millimetre;
  std::optional<bool>
      filled;  ///< closed outlines in an SVG: filled, or as hairlines; none: filled where all are closed

  SvgElement element = SvgElement::Layer;
  bool byRole = false;          ///< layers say what is cut outside, inside or along a line; else they are the drawing's
  bool strokesAsDrawn = false;  ///< lines of a pen in an SVG: as wide as they were drawn, else as hairlines
  OriginAt origin = OriginAt::Drawing;
  bool ofStock = false;            ///< the origin is at a corner or in the middle of the stock, where there is one
  std::optional<double> marginMm;  ///< the page is the box round all outlines and so much on every side
  bool onStock = false;            ///< the page is the stock, where there is one
  double dpi = 300;                ///< of a PNG

  friend bool operator==(const ExportSettings&, const ExportSettings&) = default;
};

/// What outlines are written as.
enum class FileFormat { Dxf2000, DxfR12, Svg, Pdf, Eps, Png };

/// The file that the person wants of a job.
struct FileWish {
  FileFormat format = FileFormat::Dxf2000;
  ExportSettings settings;  ///< `dxf` says nothing here: the format does
  bool fileEach = false;    ///< one file a layer
  double cutterMm = 0;      ///< how wide the machine cuts; 0: nothing was said

  friend bool operator==(const FileWish&, const FileWish&) = default;
};

}  // namespace rim::job
