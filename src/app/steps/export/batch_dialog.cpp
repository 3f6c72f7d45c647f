#include "app/steps/export/batch_dialog.h"

#include <QDialogButtonBox>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QProgressBar>
#include <QPushButton>
#include <QThread>
#include <QTreeWidget>
#include <QVBoxLayout>

#include "app/look.h"
#include "app/widgets/counted.h"
#include "app/widgets/panel_parts.h"
#include "core/io/batch.h"
#include "core/io/deliver.h"
#include "core/io/receipt.h"

namespace rim::app {
namespace {

enum Column { kPicture, kState, kOutlines, kReceipt };

/// What is told of one picture.
struct Row {
  QString state;
  QString outlines;
  QString receipt;
  bool clean = false;
};

/// In the worker: what was written is read back as a stranger would.
Row rowOf(const io::BatchItem& item) {
  Row row;
  if (item.state == io::BatchItem::State::Failed) {
    row.state = QString::fromStdString(item.why);
    return row;
  }
  row.state =
      item.state == io::BatchItem::State::UpToDate ? BatchDialog::tr("was there already") : BatchDialog::tr("written");
  if (item.outputs.empty() || io::isPrint(item.outputs.front())) {
    row.clean = true;
    return row;
  }
  // Of several files, one a layer, the outlines are those of all, and one that is not clean speaks for all.
  std::size_t outlines = 0;
  row.clean = true;
  row.receipt = BatchDialog::tr("clean");
  for (const std::filesystem::path& file : item.outputs) {
    const auto read = outcomeOf([&file] { return io::receiptOf(file); });
    const QString wrong = !read.trouble.isEmpty() ? read.trouble
                          : read.result.clean     ? QString()
                                                  : QString::fromStdString(read.result.remarks.front());
    outlines += read.result.counts.outlines;
    if (wrong.isEmpty() || !row.clean) continue;
    row.clean = false;
    row.receipt = wrong;
  }
  row.outlines = QString::number(outlines);
  return row;
}

}  // namespace

BatchDialog::BatchDialog(job::Recipe recipe, job::FileWish wish, const QString& folder, QWidget* parent)
    : QDialog(parent), recipe_(std::move(recipe)), wish_(std::move(wish)) {
  setWindowTitle(tr("Other pictures"));
  setObjectName("batchDialog");
  constexpr QSize kSize(760, 480);
  resize(kSize);
  auto* column = new QVBoxLayout(this);
  addText(column,
          tr("Every picture is prepared, traced, mended and refined as this job is, and written as its Export step "
             "says; what was done to this one by hand stays with it."));
  table_ = new QTreeWidget;
  table_->setObjectName("batchTable");
  table_->setRootIsDecorated(false);
  table_->setHeaderLabels({tr("Picture"), tr("File"), tr("Outlines"), tr("Receipt")});
  table_->header()->setSectionResizeMode(kPicture, QHeaderView::Stretch);
  column->addWidget(table_, 1);
  auto* row = new QHBoxLayout;
  auto* label = new QLabel(tr("&Into"));
  folder_ = new QLineEdit(folder);
  folder_->setObjectName("batchFolder");
  label->setBuddy(folder_);
  auto* choose = new QPushButton(tr("&Folder…"));
  row->addWidget(label);
  row->addWidget(folder_, 1);
  row->addWidget(choose);
  column->addLayout(row);
  progress_ = new QProgressBar;
  progress_->hide();
  column->addWidget(progress_);
  summary_ = addText(column);
  summary_->setObjectName("batchSummary");
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close);
  add_ = buttons->addButton(tr("&Add pictures…"), QDialogButtonBox::ActionRole);
  start_ = buttons->addButton(tr("&Start"), QDialogButtonBox::ActionRole);
  start_->setObjectName("batchStart");
  stop_ = buttons->addButton(tr("S&top"), QDialogButtonBox::ActionRole);
  stop_->setObjectName("batchStop");
  column->addWidget(buttons);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  connect(add_, &QPushButton::clicked, this, &BatchDialog::askForPictures);
  connect(choose, &QPushButton::clicked, this, &BatchDialog::askForFolder);
  connect(folder_, &QLineEdit::textChanged, this, &BatchDialog::showAllowed);
  connect(start_, &QPushButton::clicked, this, &BatchDialog::start);
  connect(stop_, &QPushButton::clicked, this, &BatchDialog::stop);
  showAllowed();
}

BatchDialog::~BatchDialog() = default;

void BatchDialog::setPictures(const QStringList& files) {
  for (const QString& file : files) {
    if (pictures_.contains(file)) continue;
    pictures_ << file;
    auto* item = new QTreeWidgetItem(table_, {QFileInfo(file).fileName()});
    item->setToolTip(kPicture, file);
  }
  showAllowed();
}

void BatchDialog::setFolder(const QString& folder) { folder_->setText(folder); }

void BatchDialog::askForPictures() {
  setPictures(QFileDialog::getOpenFileNames(this, tr("Pictures"), {},
                                            tr("Pictures (*.png *.jpg *.jpeg *.bmp *.gif *.tif *.tiff *.webp *.pdf);;"
                                               "All files (*)")));
}

void BatchDialog::askForFolder() {
  const QString folder = QFileDialog::getExistingDirectory(this, tr("Where the files go"), folder_->text());
  if (!folder.isEmpty()) setFolder(folder);
}

void BatchDialog::start() {
  if (running() || pictures_.isEmpty()) return;
  done_ = clean_ = 0;
  for (int i = 0; i < pictures_.size(); ++i) showRow(i, tr("waiting"), {}, {}, false);
  std::vector<std::filesystem::path> pictures;
  for (const QString& file : pictures_) pictures.emplace_back(file.toStdString());
  io::BatchWish wish;
  wish.folder = folder_->text().toStdString();
  wish.endings = {io::endingFor(wish_.format)};
  wish.files = io::settingsFor(wish_);
  wish.fileEach = wish_.fileEach;
  // Files that are there were made of who knows what: all are written again.
  wish.recipeTime = std::filesystem::file_time_type::clock::now();
  wish.atOnce = static_cast<unsigned>(std::max(1, QThread::idealThreadCount() - 1));
  wish.done = [this](const io::BatchItem& item) {
    const Row row = rowOf(item);
    const auto index = pictures_.indexOf(QString::fromStdString(item.picture.string()));
    QMetaObject::invokeMethod(this, [this, row, index] {
      ++done_;
      clean_ += row.clean ? 1 : 0;
      progress_->setValue(done_);
      showRow(static_cast<int>(index), row.state, row.outlines, row.receipt, !row.clean);
    });
  };
  progress_->setRange(0, static_cast<int>(pictures_.size()));
  progress_->setValue(0);
  working_.begin(
      this,
      [recipe = recipe_, pictures, wish](const std::stop_token& stop) mutable {
        wish.stop = stop;
        io::runBatch(recipe, pictures, wish);
        return true;
      },
      [this](const Outcome<bool>& got) {
        const QString count = counted(static_cast<std::size_t>(done_), tr("1 picture"), tr("%1 pictures"));
        summary_->setText(got.trouble.isEmpty() ? tr("%1 worked through, %2 clean.").arg(count).arg(clean_)
                                                : got.trouble);
        showAllowed();
      });
  summary_->clear();
  showAllowed();
}

void BatchDialog::stop() {
  working_.leave();
  // What is being worked on is still finished, and shows in its row.
  summary_->setText(tr("Stopped."));
  for (int i = 0; i < table_->topLevelItemCount(); ++i) {
    if (table_->topLevelItem(i)->text(kState) == tr("waiting")) showRow(i, tr("left"), {}, {}, false);
  }
  showAllowed();
}

void BatchDialog::showRow(int row, const QString& state, const QString& outlines, const QString& receipt,
                          bool trouble) {
  QTreeWidgetItem* item = table_->topLevelItem(row);
  if (item == nullptr) return;
  item->setText(kState, state);
  item->setText(kOutlines, outlines);
  item->setText(kReceipt, receipt);
  for (const int column : {kState, kReceipt}) {
    item->setToolTip(column, item->text(column));
    item->setForeground(column, trouble ? look().warning : look().text);
  }
}

void BatchDialog::showAllowed() {
  add_->setEnabled(!running());
  folder_->setEnabled(!running());
  start_->setEnabled(!running() && !pictures_.isEmpty() && !folder_->text().isEmpty());
  stop_->setEnabled(running());
  progress_->setVisible(running());
}

}  // namespace rim::app
