// The shelf: a folder of plain SVG files with names, tags and sources.
#include <QtTest>
#include <fstream>

#include "core/error.h"
#include "core/io/shelf.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

namespace fs = std::filesystem;

Drawing washer() { return makeDrawing({circlePath({100, 50}, 10), circlePath({100, 50}, 4)}); }

void write(const fs::path& file, const std::string& text) { std::ofstream(file) << text; }

}  // namespace

class TestShelf : public QObject {
  Q_OBJECT

 private slots:
  void whatIsPutThereIsFoundAgain() {
    QTemporaryDir folder;
    const fs::path shelf = folder.filePath("not/there/yet").toStdString();
    QVERIFY(io::piecesOn(shelf).empty());
    const io::ShelfLabel label{"Unterlegscheibe <M10> & Süd", {"washer", "Öse, rund"}, "drawn by hand \"here\""};
    const fs::path file = io::putOnShelf(washer(), label, shelf);
    const auto pieces = io::piecesOn(shelf);
    QCOMPARE(pieces.size(), 1U);
    QCOMPARE(pieces[0].file, file);
    QVERIFY(pieces[0].label == label);
    QCOMPARE(countsOf(pathsOf(pieces[0].drawing)).nodes, 8U);
    const Box box = boxOf(pathsOf(pieces[0].drawing));
    QVERIFY2(length(box.low) < 1e-6 && std::abs(box.width() - 20) < 1e-6, "its page is as large as it is");
  }

  void namesNeverReplaceOrLeaveTheFolder() {
    QTemporaryDir folder;
    const fs::path shelf = folder.filePath("shelf").toStdString();
    const fs::path first = io::putOnShelf(washer(), {"a", {}, {}}, shelf);
    const fs::path second = io::putOnShelf(washer(), {"a", {}, {}}, shelf);
    QVERIFY(first != second);
    for (const std::string& name :
         std::vector<std::string>{"../../out", "..", ".hidden", "a/b", std::string(400, 'x'), "Ünï \\ : * ?"}) {
      const fs::path file = io::putOnShelf(washer(), {name, {}, {}}, shelf);
      QCOMPARE(file.parent_path(), shelf);
      QVERIFY(fs::exists(file));
    }
    QCOMPARE(io::piecesOn(shelf).size(), 8U);
    QVERIFY_THROWS_EXCEPTION(InputError, io::putOnShelf(washer(), {"  ", {}, {}}, shelf));
    QVERIFY_THROWS_EXCEPTION(InputError, io::putOnShelf({}, {"a", {}, {}}, shelf));
    write(folder.filePath("file").toStdString(), "x");
    QVERIFY_THROWS_EXCEPTION(WriteError,
                             io::putOnShelf(washer(), {"a", {}, {}}, folder.filePath("file/shelf").toStdString()));
  }

  void filesOfOthersLieThereToo() {
    QTemporaryDir folder;
    const fs::path shelf = folder.path().toStdString();
    const std::string begin =
        "<svg xmlns='http://www.w3.org/2000/svg' xmlns:r='http://www.w3.org/1999/02/22-rdf-syntax-ns#' ";
    write(shelf / "plain.svg",
          begin + "width='10mm' height='10mm' viewBox='0 0 10 10'><rect width='10' height='5'/></svg>");
    write(shelf / "other.svg",
          begin +
              "xmlns:d='http://purl.org/dc/elements/1.1/' viewBox='0 0 10 10'><title> Bolt </title><metadata><r:RDF><w>"
              "<d:subject><r:Bag><r:li>steel</r:li><r:li> </r:li></r:Bag></d:subject></w></r:RDF></metadata>"
              "<circle r='4'/></svg>");
    write(shelf / "broken.svg", "<svg><path");
    write(shelf / "empty.svg", begin + "/>");
    write(shelf / "notes.txt", "no drawing");
    fs::create_directory(shelf / "folder.svg");
    const auto pieces = io::piecesOn(shelf);
    QCOMPARE(pieces.size(), 2U);
    QCOMPARE(pieces[0].label.name, std::string("Bolt"));
    QCOMPARE(pieces[0].label.tags, std::vector<std::string>{"steel"});
    QCOMPARE(pieces[1].label.name, std::string("plain"));
    std::stop_source left;
    left.request_stop();
    QVERIFY_THROWS_EXCEPTION(Cancelled, io::piecesOn(shelf, left.get_token()));
  }
};

RIM_TEST(TestShelf)
#include "tst_shelf.moc"
