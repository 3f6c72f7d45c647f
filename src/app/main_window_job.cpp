// Keeping the job in a file, and closing the window without losing it.

#include <QCloseEvent>
#include <QFileDialog>
#include <QFileInfo>
#include <QMessageBox>
#include <QStandardPaths>

#include "app/main_window.h"
#include "core/io/job_file.h"

namespace rim::app {

QString MainWindow::jobName() const {
  return session_.jobFile().isEmpty() ? QString::fromStdString(session_.job().original.name)
                                      : QFileInfo(session_.jobFile()).fileName();
}

void MainWindow::saveJob() {
  if (session_.jobFile().isEmpty()) {
    askForJobFile();
  } else {
    session_.saveTo(session_.jobFile());
  }
}

void MainWindow::askForJobFile() {
  if (!session_.hasPicture()) return;
  const QString folder = preferences_.pictureFolder.isEmpty()
                             ? QStandardPaths::writableLocation(QStandardPaths::DocumentsLocation)
                             : preferences_.pictureFolder;
  const QString name = QFileInfo(jobName()).completeBaseName() + kJobEnding;
  QFileDialog dialog(this, tr("Save job"), folder, tr("Jobs (*%1)").arg(kJobEnding));
  dialog.setObjectName("jobDialog");
  dialog.setAcceptMode(QFileDialog::AcceptSave);
  dialog.setDefaultSuffix(QString(kJobEnding).mid(1));
  dialog.selectFile(name);
  if (dialog.exec() == QDialog::Accepted) {
    session_.saveTo(dialog.selectedFiles().value(0));
  } else {
    closing_ = false;
  }
}

/// Asks what to do with changes that are in no file. False: the window stays, or closes once they are saved.
bool MainWindow::mayClose() {
  if (!session_.modified()) return true;
  QMessageBox question(QMessageBox::Question, tr("Close Snug Rim"),
                       tr("The job on %1 has changes that are not saved.").arg(jobName()),
                       QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, this);
  question.setObjectName("closeQuestion");
  question.setTextFormat(Qt::PlainText);
  const int answer = question.exec();
  closing_ = answer == QMessageBox::Save;
  if (closing_) saveJob();
  return answer == QMessageBox::Discard;
}

void MainWindow::closeEvent(QCloseEvent* event) {
  preferences_.windowGeometry = saveGeometry();
  savePreferences(preferences_);
  event->setAccepted(mayClose());
}

}  // namespace rim::app
