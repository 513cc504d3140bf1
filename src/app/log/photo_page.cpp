// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/log/photo_page.h"

#include "app/parts/page_parts.h"
#include "app/session/photos.h"

#include <QBuffer>
#include <QDir>
#include <QDragEnterEvent>
#include <QImageReader>
#include <QMimeData>
#include <QPointer>

namespace inchpeg::app
{

namespace
{

constexpr int kThumbnail = 220;
constexpr int kPhotosAcross = 3;
constexpr int kSettle_ms = 400;

bool isPicture(const QString &name)
{
    static const QStringList endings{QStringLiteral(".png"),  QStringLiteral(".jpg"), QStringLiteral(".jpeg"),
                                     QStringLiteral(".webp"), QStringLiteral(".bmp"), QStringLiteral(".ppm"),
                                     QStringLiteral(".tif"),  QStringLiteral(".tiff")};
    return std::any_of(endings.begin(), endings.end(),
                       [&](const QString &ending) { return name.endsWith(ending, Qt::CaseInsensitive); });
}

/// The pictures in a folder, by name.
QStringList picturesIn(const QString &folder)
{
    QStringList paths;
    for (const QFileInfo &info : QDir(folder).entryInfoList(QDir::Files, QDir::Name)) {
        if (isPicture(info.fileName()))
            paths << info.filePath();
    }
    return paths;
}

} // namespace

PhotoPage::PhotoPage(ProjectSession &session, Prompts &prompts, QWidget *parent)
    : QWidget(parent), m_session(session), m_prompts(prompts)
{
    setObjectName(QStringLiteral("photoPage"));
    setAcceptDrops(true);
    QVBoxLayout *layout = scrollingPage(this);
    m_title = heading({});
    m_title->setObjectName(QStringLiteral("photoTitle"));
    m_add = button("addPhoto", tr("Add a photo…"), true);
    m_watch = button("watchFolder", tr("Watch a folder…"));
    m_watch->setToolTip(tr("Each new picture in it goes to the piece that is selected then"));
    auto *top = new QHBoxLayout;
    top->addWidget(m_title, 1);
    top->addWidget(m_watch);
    top->addWidget(m_add);
    layout->addLayout(top);
    m_watched = softLabel({});
    m_watched->setObjectName(QStringLiteral("watchedFolder"));
    layout->addWidget(m_watched);
    m_grid = new QGridLayout;
    layout->addLayout(m_grid);
    layout->addStretch(1);
    m_settle.setInterval(kSettle_ms);
    connect(&m_settle, &QTimer::timeout, this, &PhotoPage::takeNew);
    connect(&m_watcher, &QFileSystemWatcher::directoryChanged, this, [this] { m_settle.start(); });
    connect(m_add, &QPushButton::clicked, this, [this] {
        const QString path = m_prompts.filePath(this, tr("Add a photo"), photoFilter());
        if (!path.isEmpty())
            addPhotos(m_session, m_session.selectedPiece(), {path});
    });
    connect(m_watch, &QPushButton::clicked, this, [this] {
        watchFolder(m_folder.isEmpty()
                        ? m_prompts.folderPath(this, tr("Folder in which the camera puts its pictures"),
                                               QDir::homePath())
                        : QString());
    });
    connect(&session, &ProjectSession::selectionChanged, this, [this] {
        if (isVisible())
            refresh();
    });
    connect(&session, &ProjectSession::projectChanged, this, [this] { m_thumbnails.clear(); });
    watchFolder({});
}

void PhotoPage::watchFolder(const QString &folder)
{
    if (!m_folder.isEmpty())
        m_watcher.removePath(m_folder);
    m_settle.stop();
    m_growing.clear();
    m_folder = folder;
    if (!folder.isEmpty()) {
        const QStringList there = picturesIn(folder);
        m_known = QSet<QString>(there.begin(), there.end());
        m_watcher.addPath(folder);
    }
    m_watch->setText(folder.isEmpty() ? tr("Watch a folder…") : tr("Stop watching"));
    m_watched->setText(folder.isEmpty()
                           ? tr("Drop pictures here, or let a folder be watched.")
                           : tr("Watching %1: each new picture goes to the selected piece.").arg(folder));
}

/// Pictures that are new and have stopped growing.
void PhotoPage::takeNew()
{
    QStringList ready;
    std::map<QString, qint64> growing;
    for (const QString &path : picturesIn(m_folder)) {
        if (m_known.contains(path))
            continue;
        const qint64 size = QFileInfo(path).size();
        const auto before = m_growing.find(path);
        if (before != m_growing.end() && before->second == size && size > 0) {
            ready << path;
            m_known.insert(path);
        } else {
            growing[path] = size;
        }
    }
    m_growing = std::move(growing);
    if (m_growing.empty())
        m_settle.stop();
    if (!ready.isEmpty() && m_session.study() != nullptr && !m_session.isForReading())
        addPhotos(m_session, m_session.selectedPiece(), ready);
}

void PhotoPage::refresh()
{
    showPhotos();
}

/// In another thread: a photo of many megabytes takes longer than a frame.
void PhotoPage::decode(RawFileId file)
{
    if (m_decoding.contains(file))
        return;
    Result<std::string> bytes = m_session.project().rawBytes(file);
    if (!bytes)
        return;
    auto task = std::make_unique<Task<Thumbnail>>();
    Task<Thumbnail> &begun = *task;
    m_decoding[file] = std::move(task);
    begun.begin(
        "thumbnail",
        [file, content = std::move(*bytes)] {
            QByteArray copied(content.data(), static_cast<qsizetype>(content.size()));
            QBuffer buffer(&copied);
            buffer.open(QIODevice::ReadOnly);
            QImageReader reader(&buffer);
            reader.setAutoTransform(true);
            const QImage image = reader.read();
            return Thumbnail{file,
                             image.isNull() ? image
                                            : image.scaled(2 * kThumbnail, 2 * kThumbnail,
                                                           Qt::KeepAspectRatio, Qt::SmoothTransformation),
                             image.size()};
        },
        [this, file](Result<Thumbnail> made) {
            m_decoding.erase(file);
            if (!m_session.tell(made ? ok() : Status(made.error())))
                return; // it is tried again when the page is shown again
            m_thumbnails[file] = std::move(*made);
            showPhotos();
        });
}

bool PhotoPage::changePhotos(const QString &what, PieceId piece, std::size_t index, const Photo &shown,
                             const std::function<void(std::vector<Photo> &)> &edit)
{
    return m_session.tryEdit(what, [&](Study &study) -> Status {
        Piece *changed = findPiece(study, piece);
        if (changed == nullptr)
            return Error{ErrorCode::NotFound, "the piece is no longer there; nothing was changed", {}};
        if (const Status there = stillAt(index, changed->log.photos, shown); !there)
            return there;
        edit(changed->log.photos);
        return ok();
    });
}

void PhotoPage::showPhotos()
{
    const Study *study = m_session.study();
    const Piece *piece = study != nullptr ? findPiece(*study, m_session.selectedPiece()) : nullptr;
    clearLayout(m_grid);
    m_add->setEnabled(piece != nullptr);
    if (piece == nullptr) {
        m_title->setText(tr("Choose a peg: photos belong to a piece"));
        return;
    }
    m_title->setText(tr("Photos of %1").arg(QString::fromStdString(piece->code)));
    for (std::size_t i = 0; i < piece->log.photos.size(); ++i) {
        const Photo &photo = piece->log.photos[i];
        auto *box = new QWidget;
        auto *column = new QVBoxLayout(box);
        auto *picture = new QLabel;
        picture->setObjectName(QStringLiteral("photo%1").arg(i));
        picture->setAccessibleName(QString::fromStdString(photo.caption));
        picture->setFixedSize(kThumbnail, kThumbnail * 3 / 4);
        picture->setAlignment(Qt::AlignCenter);
        const auto known = m_thumbnails.find(photo.file);
        if (known == m_thumbnails.end()) {
            picture->setText(tr("…"));
            decode(photo.file);
        } else if (known->second.image.isNull()) {
            picture->setText(tr("This file is no picture that can be shown; it is kept as it is."));
            picture->setWordWrap(true);
        } else {
            picture->setPixmap(QPixmap::fromImage(known->second.image.scaled(
                picture->size() * devicePixelRatioF(), Qt::KeepAspectRatio, Qt::SmoothTransformation)));
            picture->setScaledContents(false);
        }
        auto *caption = lineEdit("", tr("Caption"), tr("what it shows"));
        caption->setObjectName(QStringLiteral("caption%1").arg(i));
        caption->setText(QString::fromStdString(photo.caption));
        caption->setMaximumWidth(kThumbnail);
        auto *drop = button("", tr("Take off"));
        drop->setObjectName(QStringLiteral("removePhoto%1").arg(i));
        drop->setProperty("slim", true);
        column->addWidget(picture);
        column->addWidget(caption);
        column->addWidget(softLabel(tr("%1, %2").arg(
            QString::fromStdString(photo.who),
            QString::fromStdString(photo.when).left(16).replace(QLatin1Char('T'), QLatin1Char(' ')))));
        column->addWidget(drop, 0, Qt::AlignLeft);
        m_grid->addWidget(box, static_cast<int>(i) / kPhotosAcross, static_cast<int>(i) % kPhotosAcross);
        onTyped(
            caption,
            [this, id = piece->id, i, photo](const QString &text) {
                return changePhotos(tr("caption a photo"), id, i, photo, [&](std::vector<Photo> &photos) {
                    photos[i].caption = text.trimmed().toStdString();
                });
            },
            [this] { showPhotos(); });
        connect(drop, &QPushButton::clicked, this, [this, id = piece->id, i, photo] {
            changePhotos(tr("take a photo off"), id, i, photo, [i](std::vector<Photo> &photos) {
                photos.erase(photos.begin() + static_cast<std::ptrdiff_t>(i));
            });
        });
    }
    m_grid->setColumnStretch(kPhotosAcross, 1);
    if (piece->log.photos.empty())
        m_grid->addWidget(
            softLabel(tr("None yet. A photo of the break tells later whether it went through one layer, "
                         "along several, or at the grips.")),
            0, 0, 1, kPhotosAcross);
}

void PhotoPage::dragEnterEvent(QDragEnterEvent *event)
{
    if (event->mimeData()->hasUrls())
        event->acceptProposedAction();
}

void PhotoPage::dropEvent(QDropEvent *event)
{
    QStringList paths;
    for (const QUrl &url : event->mimeData()->urls()) {
        if (url.isLocalFile() && isPicture(url.toLocalFile()))
            paths << url.toLocalFile();
    }
    if (paths.isEmpty())
        return;
    event->acceptProposedAction();
    addPhotos(m_session, m_session.selectedPiece(), paths);
}

} // namespace inchpeg::app
