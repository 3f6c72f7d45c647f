// A window that is worked in until it is killed: edits every few hundredths of a second, saves or does not. What is
// edited is a number in the note of origin; each is told on standard output once it was made. Started by tst_killed.

#include <QApplication>
#include <QSettings>
#include <QTimer>
#include <cstdio>
#include <random>

#include "app/look.h"
#include "app/main_window.h"

int main(int argc, char** argv) {
  QApplication application(argc, argv);
  if (argc != 5) return 2;
  const QString picture = QString::fromLocal8Bit(argv[1]);
  const QString job = QString::fromLocal8Bit(argv[2]);
  const QString settings = QString::fromLocal8Bit(argv[3]);
  std::mt19937 random(static_cast<unsigned>(std::stoul(argv[4])));
  QCoreApplication::setOrganizationName("snugrim-test");
  QSettings::setDefaultFormat(QSettings::IniFormat);
  QSettings::setPath(QSettings::IniFormat, QSettings::UserScope, settings);
  rim::app::applyLook(application, rim::app::Appearance::Light);
  rim::app::MainWindow window;
  window.show();
  window.openFile(picture);
  // Some save often, some now and then, some never.
  const unsigned saves[] = {6, 60, 1'000'000};
  const unsigned one = saves[random() % std::size(saves)];
  int number = 0;
  QTimer timer;
  QObject::connect(&timer, &QTimer::timeout, [&] {
    if (!window.session().hasWork()) return;
    ++number;
    window.session().edit("Note", {},
                          [number](rim::job::Job& edited) { edited.origin = "edit " + std::to_string(number); });
    if (random() % 4 == 0)
      window.session().edit("Smoothness", {}, [&random](rim::job::Job& edited) {
        edited.trace.tolerancePx = 0.3 + 0.1 * static_cast<double>(random() % 10);
      });
    if (number % static_cast<int>(one) == 0) window.session().saveTo(job);
    std::printf("%d\n", number);
    std::fflush(stdout);
  });
  timer.start(40);
  return QApplication::exec();
}
