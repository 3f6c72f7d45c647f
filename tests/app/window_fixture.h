#pragma once

#include <QApplication>
#include <QFileDialog>
#include <QLineEdit>
#include <QMessageBox>
#include <QPushButton>
#include <QSettings>
#include <QSignalSpy>
#include <QTemporaryDir>
#include <QTest>
#include <QTimer>
#include <memory>

#include "app/bench/bench.h"
#include "app/look.h"
#include "app/main_window.h"
#include "patience.h"

namespace rim::test {

inline QString demoFile(const char* name) { return QStringLiteral(SOURCE_FOLDER "/demo/") + name; }
inline QString testPicture(const char* name) { return QStringLiteral(TEST_DATA "/pictures/") + name; }

/// Presses a button of the next message box.
inline void answer(QMessageBox::StandardButton button) {
  QTimer::singleShot(0, qApp, [button] {
    auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget());
    if (box == nullptr || box->button(button) == nullptr) return answer(button);
    box->button(button)->click();
  });
}

/// The same by what a button is for.
inline void answerWith(QMessageBox::ButtonRole role) {
  QTimer::singleShot(0, qApp, [role] {
    auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget());
    if (box == nullptr) return answerWith(role);
    for (QAbstractButton* button : box->buttons()) {
      if (box->buttonRole(button) == role) button->click();
    }
  });
}

/// Types a name into the next file dialogue and accepts it.
inline void chooseFile(const QString& name) {
  QTimer::singleShot(0, qApp, [name] {
    auto* dialog = qobject_cast<QFileDialog*>(QApplication::activeModalWidget());
    if (dialog == nullptr) return chooseFile(name);
    dialog->findChild<QLineEdit*>("fileNameEdit")->setText(name);
    QMetaObject::invokeMethod(dialog, "accept");
  });
}

/// A real window with settings of its own, for one test function.
struct WindowFixture {
  /// `state`: the state folder; empty: one of its own.
  explicit WindowFixture(bool inInks = false, const QString& state = {}) {
    QCoreApplication::setOrganizationName("snugrim-test");
    QSettings::setDefaultFormat(QSettings::IniFormat);
    QSettings::setPath(QSettings::IniFormat, QSettings::UserScope, folder.path());
    qputenv("XDG_STATE_HOME", (state.isEmpty() ? folder.path() : state).toUtf8());
    app::applyLook(*qApp, app::Appearance::Light);
    // Most tests are about two tones; what opens in several inks has tests of its own.
    app::Preferences preferences = app::loadPreferences();
    preferences.opensInInks = inInks;
    app::savePreferences(preferences);
    window = std::make_unique<app::MainWindow>();
    window->show();
    QVERIFY(QTest::qWaitForWindowExposed(window.get()));
    window->activateWindow();
  }

  app::Session& session() { return window->session(); }
  const job::Job& job() { return session().job(); }

  /// Opens a picture; changes of what was open are dropped at the question.
  bool open(const QString& file) {
    const auto before = job().picture.grey;
    if (session().modified()) answer(QMessageBox::Discard);
    window->openFile(file);
    return settle() && job().picture.grey != before;
  }

  /// Opens a drawing.
  bool openDrawing(const QString& file) {
    window->openFile(file);
    return QTest::qWaitFor([this] { return job().drawing && session().upToDate(); }, kPatienceMs);
  }

  /// Waits until nothing runs beside the window.
  bool settle() {
    return QTest::qWaitFor([this] { return !session().busy(); }, kPatienceMs);
  }

  template <typename Widget>
  Widget* find(const char* name) {
    return window->findChild<Widget*>(name);
  }

  QTemporaryDir folder;
  std::unique_ptr<app::MainWindow> window;
};

/// A small change of the picture that can be undone.
inline void thicken(WindowFixture& f, double px) {
  f.session().edit("Thicken", {}, [px](job::Job& job) { job.preparation.push_back({picture::Thicken{px}}); });
}

}  // namespace rim::test
