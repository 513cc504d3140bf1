// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/bench_keeper.h"

#include "core/model/study_edit.h"

#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QPointer>

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg::app
{

BenchKeeper::BenchKeeper(ProjectSession &session, QObject *parent) : QObject(parent), m_session(session)
{
    connect(&session, &ProjectSession::projectChanged, this, [this] { m_pending = 0; });
}

void BenchKeeper::keepFile(const QString &file, PieceId piece, const QString &name)
{
    QFile kept(file);
    if (!kept.open(QIODevice::ReadOnly)) {
        emit told(tr("%1 cannot be read: %2").arg(file, kept.errorString()));
        return;
    }
    start(piece, name.toStdString(), std::make_shared<const std::string>(kept.readAll().toStdString()), file,
          tr("record on the bench"), {});
}

bool BenchKeeper::keepTyped(PieceId id, const std::vector<TypedRow> &rows, const std::string &gauge,
                            const QString &step, Change change)
{
    const Piece *piece = m_session.study() == nullptr ? nullptr : findPiece(*m_session.study(), id);
    if (piece == nullptr || reductionOf(piece->test) == nullptr)
        return false;
    const Reduction &reduction = *reductionOf(piece->test);
    std::vector<Unit> units;
    for (const TypedColumn &column : typedColumns(reduction))
        units.push_back(m_session.notation().unitOf(column.dimension.value_or(Dimension::Number)));
    const TypedRecord record{piece->code, m_session.who().toStdString(), gauge, rows};
    const Result<std::string> bytes = typedRecordText(record, reduction, units);
    if (!m_session.tell(bytes ? ok() : Status(bytes.error())))
        return false;
    start(id, fmt::format("typed {} {}.csv", piece->code, m_session.now().substr(0, 10)),
          std::make_shared<const std::string>(*bytes), {}, step, std::move(change));
    return isBusy();
}

void BenchKeeper::start(PieceId piece, const std::string &name, std::shared_ptr<const std::string> bytes,
                        const QString &file, const QString &step, Change change)
{
    std::vector<RawFileToKeep> files{{{}, name, {}, std::move(bytes)}};
    const bool isTaken = m_session.tell(m_session.keepRawFiles(
        std::move(files), [self = QPointer(this), study = m_session.study()->id, piece, file, step,
                           change = std::move(change)](const KeptRawFiles &stored) {
            if (self != nullptr)
                self->link(study, piece, file, step, change, stored);
        }));
    m_pending += isTaken ? 1 : 0;
}

/// Wherever the person has gone meanwhile.
void BenchKeeper::link(StudyId study, PieceId id, const QString &file, const QString &step,
                       const Change &change, const KeptRawFiles &stored)
{
    const bool isThere = m_session.study() != nullptr && m_session.study()->id == study;
    // Still at hand while the study is changed: what follows from that must not take the next piece.
    const bool isLinked =
        m_session.tell(stored.status) && !stored.ids.empty() &&
        (isThere || m_session.tell(m_session.selectStudy(study))) &&
        m_session.tryEdit(step, [&](Study &changed) -> Status {
            Piece *recorded = findPiece(changed, id);
            if (recorded == nullptr)
                return invalidArgument("the piece is no longer there");
            setRecording(*recorded, Recording{stored.ids.front(), {}, m_session.rigToday(recorded->test)});
            if (change)
                change(*recorded);
            return ok();
        });
    m_pending = std::max(0, m_pending - 1);
    if (isLinked && !file.isEmpty()) {
        QFile::remove(file);
        QDir().rmdir(QFileInfo(file).path()); // while there is nothing in it
    }
    emit kept(id, isLinked);
}

} // namespace inchpeg::app
