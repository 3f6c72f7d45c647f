#include <QApplication>
#include <QCommandLineParser>
#include <QIcon>
#include <QSettings>
#include <QTemporaryDir>

#include "app/demo_run.h"
#include "app/look.h"
#include "app/main_window.h"
#include "core/picture/vips_library.h"

int main(int argc, char** argv) {
  rim::picture::startVipsAlone();
  QApplication application(argc, argv);
  QApplication::setApplicationName("snugrim");
  QApplication::setOrganizationName("snugrim");
  QApplication::setApplicationDisplayName("Snug Rim");
  QApplication::setApplicationVersion(SNUGRIM_VERSION);
  QApplication::setDesktopFileName("snugrim");
  QApplication::setWindowIcon(QIcon(":/snugrim.svg"));

  QCommandLineParser parser;
  parser.setApplicationDescription("Turns a picture into closed outlines of a known size.");
  parser.addHelpOption();
  parser.addVersionOption();
  parser.addPositionalArgument("picture", "A picture to open.", "[picture]");
  const QCommandLineOption demo("demo", "Start with the demo badge open.");
  const QCommandLineOption shot("shot", "Save a picture of the window with the demo badge, then exit.", "view");
  const QCommandLineOption to("to", "Where --shot saves its picture.", "file");
  const QCommandLineOption job("demo-job", "Trace and export the demo badge into a folder, then exit.", "folder");
  parser.addOptions({demo, shot, to, job});
  parser.process(application);

  // What is done for a picture of the window is nobody's work and nobody's wish.
  const QTemporaryDir aside;
  if (parser.isSet(shot) || parser.isSet(job)) {
    qputenv("XDG_STATE_HOME", aside.path().toUtf8());
    QSettings::setPath(QSettings::NativeFormat, QSettings::UserScope, aside.path());
  }
  rim::app::applyLook(application, rim::app::loadPreferences().appearance);
  rim::app::MainWindow window;
  if (parser.isSet(shot)) return rim::app::takeShot(window, parser.value(shot), parser.value(to));
  if (parser.isSet(job)) return rim::app::runDemoJob(window, parser.value(job));
  window.show();
  const QStringList files = parser.positionalArguments();
  if (!files.isEmpty()) {
    window.openFile(files.last());
  } else if (parser.isSet(demo)) {
    window.openDemo("badge.jpg");
  }
  return QApplication::exec();
}
