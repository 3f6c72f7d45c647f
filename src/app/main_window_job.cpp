// Keeping the job in a file, and closing the window without losing it.

#include <QCloseEvent>
#include <QFileDialog>
#include <QFileInfo>
#include <QMessageBox>
#include <QPushButton>
#include <QStandardPaths>

#include "app/main_window.h"
#include "core/io/job/job_file.h"

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
  if (!session_.hasWork()) return;
  const QString folder = preferences_.pictureFolder.isEmpty()
                             ? QStandardPaths::writableLocation(QStandardPaths::DocumentsLocation)
                             : preferences_.pictureFolder;
  QFileDialog dialog(this, tr("Save job"), folder, tr("Jobs (*%1)").arg(kJobEnding));
  dialog.setObjectName("jobDialog");
  dialog.selectFile(QFileInfo(jobName()).completeBaseName() + kJobEnding);
  const QString file = chosenFile(dialog, {QString(kJobEnding).mid(1)});
  if (file.isEmpty()) {
    afterSaving_ = nullptr;
  } else {
    session_.saveTo(file);
  }
}

QString MainWindow::chosenFile(QFileDialog& dialog, const QStringList& endings) {
  dialog.setAcceptMode(QFileDialog::AcceptSave);
  dialog.setDefaultSuffix(endings.first());
  // Whether a file is to be replaced is asked below, once its whole name is known.
  dialog.setOption(QFileDialog::DontConfirmOverwrite);
  while (dialog.exec() == QDialog::Accepted) {
    QString file = dialog.selectedFiles().value(0);
    // "part 2.5" has no ending, whatever stands behind its dot.
    if (!endings.contains(QFileInfo(file).suffix().toLower())) file += "." + endings.first();
    if (!QFileInfo::exists(file) || mayReplace(file)) return file;
  }
  return {};
}

bool MainWindow::mayReplace(const QString& file) {
  QMessageBox question(QMessageBox::Question, tr("Replace the file"),
                       tr("%1 is there already.").arg(QFileInfo(file).fileName()), QMessageBox::Cancel, this);
  question.setObjectName("replaceQuestion");
  question.setTextFormat(Qt::PlainText);
  QPushButton* replace = question.addButton(tr("&Replace"), QMessageBox::AcceptRole);
  question.exec();
  return question.clickedButton() == replace;
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
}

}  // namespace rim::app
