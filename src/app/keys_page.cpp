#include "app/keys_page.h"

#include <QTextBrowser>
#include <QVBoxLayout>

#include "app/action_book.h"

namespace rim::app {

KeysPage::KeysPage(const ActionBook& book, QWidget* parent) : QDialog(parent) {
  setWindowTitle(tr("Keys"));
  setAttribute(Qt::WA_DeleteOnClose);
  auto* page = new QTextBrowser;
  page->setObjectName("keysPage");
  page->setAccessibleName(tr("All keys, those of this step first"));
  page->setHtml(book.page());
  page->setFrameShape(QFrame::NoFrame);
  auto* layout = new QVBoxLayout(this);
  layout->addWidget(page);
  constexpr QSize kSize(760, 640);
  resize(kSize);
}

}  // namespace rim::app
