#pragma once

#include <QString>

namespace rim::app {

class MainWindow;

/// Runs of the real window without a person, for `./run` on a machine with no screen.

/// Opens the demo badge, shows what `view` names (picture, picture-done, picture-frame, trace, export,
/// seam, nodes, dark, empty, camera) and saves the window as a PNG. Returns the exit code: 0, or 2 with a sentence on
/// standard error.
int takeShot(MainWindow& window, const QString& view, const QString& file);

/// The demo's main job: opens the badge, traces it, exports DXF and SVG into `folder` and saves a
/// picture of the window there. Returns the exit code.
int runDemoJob(MainWindow& window, const QString& folder);

}  // namespace rim::app
