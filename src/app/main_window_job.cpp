// Keeping the job in a file, and closing the window without losing it.

#include <QCloseEvent>
#include <QFileDialog>
#include <QFileInfo>
#include <QMenu>
#include <QMessageBox>
#include <QPushButton>
#include <QStandardPaths>

#include "app/file_questions.h"
#include "app/main_window.h"
#include "app/start/start_page.h"
#include "app/widgets/notice.h"
#include "core/io/job/job_file.h"

namespace rim::app {

QString MainWindow::jobName() const {
  return session_.jobFile().isEmpty() ? QString::fromStdString(session_.job().original.name)
                                      : QFileInfo(session_.jobFile()).fileName();
}

void MainWindow::saveJob() {
  if (session_.jobFile().isEmpty() || (!jobLock_.isOurs() && !mayWriteOver())) {
    askForJobFile();
  } else {
    session_.saveTo(session_.jobFile());
  }
}

/// The file that another window has open, too: whoever saves last takes the other's changes away.
bool MainWindow::mayWriteOver() {
  QMessageBox question(QMessageBox::Warning, tr("Save job"),
                       tr("%1 is open in another window, too. What was saved there since is lost if you save over it.")
                           .arg(QFileInfo(session_.jobFile()).fileName()),
                       QMessageBox::NoButton, this);
  question.setObjectName("overQuestion");
  question.setTextFormat(Qt::PlainText);
  QPushButton* over = question.addButton(tr("Save &over it"), QMessageBox::AcceptRole);
  question.addButton(tr("To another &file…"), QMessageBox::RejectRole);
  question.exec();
  return question.clickedButton() == over;
}

void MainWindow::holdJobFile() {
  if (jobLock_.hold(session_.jobFile())) return;
  const auto tell = [this, name = QFileInfo(session_.jobFile()).fileName()] {
    notice_->warn(tr("%1 is open in another window, too. What is saved last counts.").arg(name));
  };
  tell();
  // A picture that comes on the bench takes away what was said before.
  if (session_.job().picture.empty())
    connect(&session_, &Session::pictureChanged, this, tell, Qt::SingleShotConnection);
}

void MainWindow::connectSafekeeping() {
  connect(&safekeeping_, &Safekeeping::failed, notice_, &Notice::warn);
  connect(&session_, &Session::opened, this, &MainWindow::holdJobFile);
  connect(&session_, &Session::saved, this, &MainWindow::holdJobFile);
  connect(&session_, &Session::broughtBack, this, [this](const QString& folder) {
    holdJobFile();
    // It is this window's work now, and is kept for it before the other's is deleted.
    connect(
        &safekeeping_, &Safekeeping::kept, this,
        [this, folder] {
          safekeeping_.letGo({folder, {}, {}});
        },
        Qt::SingleShotConnection);
    safekeeping_.keepNow();
  });
  connect(start_, &StartPage::broughtBack, this,
          [this](const LeftWork& work) { replaceWork([this, work] { session_.bringBack(work.folder); }); });
  connect(start_, &StartPage::letGo, this, &MainWindow::letGo);
  start_->showLeft(safekeeping_.left());
}

void MainWindow::letGo(const LeftWork& work) {
  QMessageBox question(QMessageBox::Question, tr("Let it go"),
                       tr("What was not saved of %1 will be deleted.").arg(work.name), QMessageBox::Cancel, this);
  question.setObjectName("letGoQuestion");
  question.setTextFormat(Qt::PlainText);
  QPushButton* gone = question.addButton(tr("&Delete it"), QMessageBox::AcceptRole);
  question.exec();
  if (question.clickedButton() != gone) return;
  safekeeping_.letGo(work);
  start_->showLeft(safekeeping_.left());
}

/// Work that was left is offered on the start page, and here when something else was opened first.
void MainWindow::fillLeft(QMenu* menu) {
  menu->clear();
  for (const LeftWork& work : safekeeping_.left()) {
    menu->addAction(QString(work.name).replace('&', "&&"), this,
                    [this, work] { replaceWork([this, work] { session_.bringBack(work.folder); }); });
  }
  if (menu->isEmpty()) menu->addAction(tr("Nothing was left unsaved"))->setEnabled(false);
}

void MainWindow::askForJobFile() {
  if (!session_.hasWork()) return;
  const QString folder = preferences_.pictureFolder.isEmpty()
                             ? QStandardPaths::writableLocation(QStandardPaths::DocumentsLocation)
                             : preferences_.pictureFolder;
  QFileDialog dialog(this, tr("Save job"), folder, tr("Jobs (*%1)").arg(io::kJobEnding));
  dialog.setObjectName("jobDialog");
  dialog.selectFile(QFileInfo(jobName()).completeBaseName() + io::kJobEnding);
  const QString file = chosenFile(dialog, {QString(io::kJobEnding).mid(1)});
  if (file.isEmpty()) {
    afterSaving_ = nullptr;
  } else {
    session_.saveTo(file);
  }
}

bool MainWindow::mayLeave(const QString& title, const std::function<void()>& then) {
  if (!session_.modified()) return true;
  QMessageBox question(QMessageBox::Question, title, tr("The job on %1 has changes that are not saved.").arg(jobName()),
                       QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, this);
  question.setObjectName("closeQuestion");
  question.setTextFormat(Qt::PlainText);
  const int answer = question.exec();
  if (answer == QMessageBox::Save) {
    afterSaving_ = then;
    saveJob();
  }
  return answer == QMessageBox::Discard;
}

void MainWindow::replaceWork(const std::function<void()>& open) {
  if (mayLeave(tr("Open another"), open)) open();
}

void MainWindow::closeEvent(QCloseEvent* event) {
  preferences_.windowGeometry = saveGeometry();
  savePreferences(preferences_);
  event->setAccepted(mayLeave(tr("Close Snug Rim"), [this] { close(); }));
  if (event->isAccepted()) safekeeping_.end();
}

}  // namespace rim::app
