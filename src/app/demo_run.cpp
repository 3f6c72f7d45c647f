#include "app/demo_run.h"

#include <QApplication>
#include <QDir>
#include <QTextStream>

#include "app/bench/bench.h"
#include "app/demo_views.h"
#include "app/keys_page.h"
#include "app/main_window.h"
#include "app/shelf/shelf_dialog.h"
#include "app/start/practice_camera_dialog.h"
#include "app/steps/export/sketch_dialog.h"
#include "app/steps/trace/reference_dialog.h"

namespace rim::app {
namespace {

constexpr int kTrouble = 2;

bool openAndTrace(MainWindow& window, const QString& demo) {
  window.openDemo(demo);
  return waitFor([&window] { return window.session().hasWork() && window.session().upToDate(); });
}

int trouble(const QString& sentence) {
  QTextStream(stderr) << "snugrim: " << sentence << '\n';
  return kTrouble;
}

/// The window, or the page that lies over it.
bool savePicture(QWidget& window, const QString& file) {
  // Panels that grow are laid out in several rounds of events.
  for (int round = 0; round < 4; ++round) QApplication::processEvents();
  QWidget* page = window.findChild<KeysPage*>();
  if (page == nullptr) page = window.findChild<SketchDialog*>();
  if (page == nullptr) page = window.findChild<ShelfDialog*>();
  if (page == nullptr) page = window.findChild<ReferenceDialog*>();
  return (page != nullptr ? *page : window).grab().save(file);
}

}  // namespace

int takeShot(MainWindow& window, const QString& view, const QString& file) {
  if (view == "camera") {
    PracticeCameraDialog camera(&window);
    camera.show();
    return savePicture(camera, file) ? 0 : trouble(file + ": the picture could not be written.");
  }
  if (!demoViews().contains(view)) {
    return trouble(QStringLiteral("there is no view \"%1\" to show. Use one of: %2.")
                       .arg(view, QStringList(demoViews().keys()).join(", ")));
  }
  window.preferences() = {};
  window.session().setOpensInInks(view.startsWith("colours"));
  window.resize(1280, 800);
  window.show();
  if (view != "empty" && !openAndTrace(window, demoOf(view)))
    return trouble("the demo picture could not be traced: " + window.sentence());
  window.bench().fit();
  demoViews()[view](window);
  window.bench().finishScene();
  if (!savePicture(window, file)) return trouble(file + ": the picture could not be written.");
  return 0;
}

int runDemoJob(MainWindow& window, const QString& folder) {
  if (!QDir().mkpath(folder)) return trouble(folder + ": the folder cannot be made.");
  window.resize(1280, 800);
  window.show();
  if (!openAndTrace(window, "badge.jpg")) return trouble("the demo picture could not be traced: " + window.sentence());
  int written = 0;
  QObject::connect(&window.session(), &Session::exported, &window, [&written] { ++written; });
  for (const char* name : {"badge.dxf", "badge.svg"}) {
    window.session().exportTo(folder + "/" + name, {});
    if (!waitFor([&window] { return !window.session().busy(); })) return trouble("writing took too long.");
  }
  if (written != 2) return trouble(window.sentence());
  if (!savePicture(window, folder + "/window.png")) return trouble(folder + ": the picture could not be written.");
  return 0;
}

}  // namespace rim::app
