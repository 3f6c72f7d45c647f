#pragma once

#include <filesystem>
#include <vector>

#include "core/io/export.h"

namespace rim::io {

/// Whether a file of this name is looked at or printed (PDF, EPS, PNG), not read by a machine.
bool isPrint(const std::filesystem::path& file);

/// The ending of such files, with its dot.
std::string endingFor(job::FileFormat format);

/// What is wished for as settings: the version of a DXF is that of the format; it has no page, and the page of all
/// others says where they begin.
job::ExportSettings settingsFor(const job::FileWish& wish);

/// A file that was written, and the drawing (mm) as it stands there.
struct Delivered {
  std::filesystem::path file;
  Drawing drawing;
};

/// Writes a drawing (mm) whose place is settled as the file's ending says: .svg, .dxf, .pdf, .eps or .png. Curves
/// become what the settings say within `toleranceMm` (> 0). Throws InputError (unknown ending, nothing to show) or
/// WriteError.
Delivered deliver(const Drawing& drawing, const std::filesystem::path& file, const job::ExportSettings& settings,
                  double toleranceMm, const std::string& note = {});

/// The drawing with its layers, origin and page as the settings say, on a stock where there is one.
Drawing arranged(const Drawing& drawing, const job::ExportSettings& settings,
                 const std::optional<job::Stock>& stock = {});

/// A job's outlines, or nothing but some (empty: all), arranged so.
Drawing arrangedOf(const job::Job& job, const job::ExportSettings& settings, const std::set<OutlineId>& only = {});

/// The files, named like `file` with the layer's name behind it, that each layer of a drawing goes to; the file itself
/// where there are no layers.
std::vector<Delivered> byLayerFiles(const Drawing& drawing, const std::filesystem::path& file);

/// How many of a job's outlines go into how many files.
struct DeliveryOf {
  bool fileEach = false;     ///< one file a layer
  std::set<OutlineId> only;  ///< nothing but these; empty: all
};

/// Writes a job's outlines as the file's ending and the settings say. Throws as above.
std::vector<Delivered> deliverJob(const job::Job& job, const std::filesystem::path& file,
                                  const job::ExportSettings& settings, const DeliveryOf& what = {});

/// The SVG that deliverJob() would write of all outlines, as text. Throws WriteError.
std::string svgTextOf(const job::Job& job, const job::ExportSettings& settings);

}  // namespace rim::io
