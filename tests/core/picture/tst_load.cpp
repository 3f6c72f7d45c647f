#include <unistd.h>

#include <QBuffer>
#include <QImage>
#include <QTemporaryDir>
#include <QTest>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <future>
#include <iterator>
#include <span>

#include "core/error.h"
#include "core/picture/load.h"
#include "support/test_list.h"

using namespace rim;

namespace {

picture::Picture load(const char* name) {
  return picture::loadPicture(std::filesystem::path(TEST_DATA) / "pictures" / name);
}

int greyAt(const picture::Picture& picture, int x, int y) { return picture.grey->at<std::uint8_t>(y, x); }

/// The sentence with which a file is refused; empty when it is opened.
QString refusal(const std::filesystem::path& file) {
  try {
    picture::loadPicture(file);
    return {};
  } catch (const InputError& error) {
    return QString::fromUtf8(error.what());
  }
}

}  // namespace

class TestLoad : public QObject {
  Q_OBJECT

 private slots:
  void modulesWaitUntilTheyAreNeeded() {
    const auto modules = [] {
      std::ifstream maps("/proc/self/maps");
      const std::string all{std::istreambuf_iterator<char>(maps), {}};
      return all.find("vips-modules") != std::string::npos;
    };
    load("plain.png");
    QVERIFY(!modules());
    QVERIFY(qgetenv("VIPSHOME").isEmpty());
    load("plain.bmp");
    QVERIFY(modules());
  }

  void everyKindOpensUprightWithItsTones_data() {
    QTest::addColumn<QString>("name");
    for (const char* name :
         {"plain.png", "plain.jpg", "plain.bmp", "plain.gif", "plain.webp", "resolution-150.tif", "one-bit.png",
          "sixteen-bit.png", "cmyk.jpg", "transparent.png", "palette-with-alpha.png", "two-frames.gif"}) {
      QTest::newRow(name) << QString(name);
    }
  }
  void everyKindOpensUprightWithItsTones() {
    QFETCH(QString, name);
    const picture::Picture picture = load(qPrintable(name));
    QCOMPARE(picture.width(), 40);
    QCOMPARE(picture.height(), 24);
    QVERIFY2(greyAt(picture, 4, 4) < 45, qPrintable(QString::number(greyAt(picture, 4, 4))));
    QVERIFY2(greyAt(picture, 35, 4) > 235, qPrintable(QString::number(greyAt(picture, 35, 4))));
    QVERIFY2(greyAt(picture, 4, 20) > 235, qPrintable(QString::number(greyAt(picture, 4, 20))));
    QCOMPARE(picture.name, name.toStdString());
  }

  void coloursOfGreysAreMadeOnce() {
    cv::Mat levels(30, 50, CV_8UC1);
    cv::randu(levels, 0, 256);
    const picture::Picture picture = picture::makePicture(levels, 0, "grey");
    const picture::Picture copy = picture;
    std::vector<std::future<const cv::Mat*>> asked;
    for (int i = 0; i < 4; ++i) asked.push_back(std::async(std::launch::async, [copy] { return &*copy.bgr; }));
    for (auto& one : asked) QCOMPARE(one.get(), &*picture.bgr);
    QCOMPARE(picture.bgr->type(), CV_8UC3);
    for (int channel = 0; channel < 3; ++channel) {
      cv::Mat plane;
      cv::extractChannel(*picture.bgr, plane, channel);
      QCOMPARE(cv::norm(plane, levels, cv::NORM_INF), 0.0);
    }
    QVERIFY(&*picture::withPixels(picture, levels).bgr != &*picture.bgr);
  }

  void sixteenBitsKeepTheirMiddle() {
    const int grey = greyAt(load("sixteen-bit.png"), 35, 20);
    QVERIFY2(qAbs(grey - 128) <= 2, qPrintable(QString::number(grey)));
  }

  void aTurnedPhotoIsTurnedUpright() {
    // EXIF 2.32 (JEITA CP-3451), tag 0x0112: value 6 is "row 0 at the right side".
    const picture::Picture picture = load("turned-by-exif.jpg");
    QCOMPARE(picture.width(), 24);
    QCOMPARE(picture.height(), 40);
    QVERIFY(greyAt(picture, 20, 4) < 45);
    QVERIFY(greyAt(picture, 4, 4) > 235);
  }

  void aLargePhotoIsTurnedUprightToo() {
    // All of it is needed for that, however it is read. Dark at the top of the file, so at the right when turned.
    QImage lying(700, 1300, QImage::Format_Grayscale8);
    for (int y = 0; y < lying.height(); ++y)
      std::memset(lying.scanLine(y), y / 6, static_cast<std::size_t>(lying.width()));
    QByteArray jpeg;
    QBuffer buffer(&jpeg);
    QVERIFY(buffer.open(QIODevice::WriteOnly) && lying.save(&buffer, "JPEG", 95));
    const auto exif = QByteArray::fromHex(
        "ffe100224578696600004949"
        "2a00"
        "08000000"
        "0100"
        "120103000100000006000000"
        "00000000");
    jpeg.insert(2, exif);
    const auto bytes = std::as_bytes(std::span(jpeg.constData(), static_cast<std::size_t>(jpeg.size())));
    const picture::Picture picture = picture::loadPicture(bytes, "photo.jpg");
    QCOMPARE(picture.width(), 1300);
    QCOMPARE(picture.height(), 700);
    for (const int x : {0, 400, 900, 1299}) QVERIFY(qAbs(greyAt(picture, x, 350) - (1299 - x) / 6) <= 2);
  }

  void transparencyLiesOnWhite() { QCOMPARE(greyAt(load("fully-transparent.png"), 3, 3), 255); }

  void onePixelIsAPicture() {
    const picture::Picture picture = load("one-pixel.png");
    QCOMPARE(picture.width() * picture.height(), 1);
  }

  void thePageOfAPdfIsDrawnAt300DotsPerInch() {
    const picture::Picture page = load("page.pdf");
    QCOMPARE(page.width(), 1200);  // 4 by 2.4 inches
    QCOMPARE(page.height(), 720);
    QVERIFY(qAbs(page.dotsPerInch - 300) < 0.5);
    QVERIFY(greyAt(page, 300, 180) < 45 && greyAt(page, 900, 180) > 235);
  }

  void everyPageOfADocumentCanBeOpened() {
    for (const char* name : {"two-pages.pdf", "two-pages.tif"}) {
      const std::filesystem::path file = std::filesystem::path(TEST_DATA "/pictures") / name;
      const picture::Picture first = picture::loadPicture(file);
      QVERIFY(first.document && first.document->pages == 2 && first.page == 1);
      const picture::Picture second = picture::loadPicture(file, 2);
      QCOMPARE(second.page, 2);
      QVERIFY(second.width() < first.width());
      const picture::Picture again = picture::loadPage(first, 2);
      QCOMPARE(cv::norm(*again.bgr, *second.bgr, cv::NORM_INF), 0.0);
      QVERIFY_THROWS_EXCEPTION(InputError, picture::loadPicture(file, 3));
      QVERIFY_THROWS_EXCEPTION(InputError, picture::loadPage(second, 0));
    }
    QVERIFY(!load("plain.png").document);
    QVERIFY_THROWS_EXCEPTION(InputError, picture::loadPage(load("plain.png"), 2));
  }

  void theFilesOwnResolutionIsKept() {
    QVERIFY(qAbs(load("resolution-150.tif").dotsPerInch - 150) < 0.1);
    QVERIFY(qAbs(load("plain.png").dotsPerInch - 300) < 0.1);
    for (const char* silent : {"all-white.png", "plain.jpg", "turned-by-exif.jpg", "plain.gif", "plain.webp"}) {
      QCOMPARE(load(silent).dotsPerInch, 0.0);
    }
    QVERIFY(qAbs(load("resolution-72.jpg").dotsPerInch - 72) < 0.1);
  }

  void badFilesAreRefusedInOneSentence_data() {
    QTest::addColumn<QString>("name");
    QTest::addColumn<QString>("says");
    QTest::newRow("cut short") << "truncated.png"
                               << "damaged or cut short";
    QTest::newRow("JPEG cut short") << "truncated.jpg"
                                    << "damaged or cut short";
    QTest::newRow("no bytes") << "no-bytes.png"
                              << "empty";
    QTest::newRow("a letter") << "not-a-picture.png"
                              << "not a picture";
    QTest::newRow("too many pixels") << "claims-60000.png"
                                     << "60000 x 60000";
    QTest::newRow("missing") << "there-is-none.png"
                             << "no such file";
    QTest::newRow("a folder") << "."
                              << "folder";
  }
  void badFilesAreRefusedInOneSentence() {
    QFETCH(QString, name);
    QFETCH(QString, says);
    const QString sentence = refusal(std::filesystem::path(TEST_DATA) / "pictures" / name.toStdString());
    QVERIFY2(sentence.contains(says), qPrintable(sentence));
    QVERIFY(!sentence.contains('\n'));
    QVERIFY(sentence.endsWith('.'));
  }

  void aFileWithoutPermissionIsRefused() {
    if (geteuid() == 0) QSKIP("root may read everything");
    const QTemporaryDir folder;
    const std::filesystem::path file = folder.filePath("secret.png").toStdString();
    std::ofstream(file) << "x";
    std::filesystem::permissions(file, std::filesystem::perms::none);
    QVERIFY(refusal(file).contains("permission"));
  }

  void everyCutOfAPictureIsRefusedOrOpened() {
    // Whatever is cut off, there is a picture or a sentence; never a crash.
    const std::filesystem::path source = std::filesystem::path(TEST_DATA) / "pictures" / "turned-by-exif.jpg";
    std::ifstream in(source, std::ios::binary);
    const std::string all((std::istreambuf_iterator<char>(in)), {});
    int refused = 0;
    for (std::size_t length = 0; length < all.size(); length += 7) {
      try {
        picture::loadPicture(std::as_bytes(std::span(all.data(), length)), "cut");
      } catch (const InputError&) {
        ++refused;
      }
    }
    QVERIFY(refused > 90);
  }
};

RIM_TEST(TestLoad)
#include "tst_load.moc"
